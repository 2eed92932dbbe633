import { monthOf, type NightDate } from "~/core/time";
import type { Lamp, Landmark, LightDome, Skyline } from "~/core/sky";

/** A place to observe from, as its owner knows it. */
export interface Place {
  readonly name: string;
  readonly latitudeDeg: number;
  readonly longitudeDeg: number;
  readonly elevationM: number;
  /** IANA name. */
  readonly timeZone: string;
  /** Moonless zenith, V. */
  readonly skyMagPerArcsec2: number;
  readonly skyline: Skyline;
  /** Lowest altitude its owner shoots at. */
  readonly minAltitudeDeg: number;
  readonly seeingArcsec: number;
  /** Chance that a night is clear, January to December, [0, 1]. */
  readonly clearChance: readonly number[];
  /** Named things in the way, on top of the skyline. */
  readonly landmarks?: readonly Landmark[];
  /** Glow of towns by direction. */
  readonly domes?: readonly LightDome[];
  readonly lamps?: readonly Lamp[];
  /** One way from home; absent or 0 = at home. */
  readonly travelMin?: number;
  /** Set-up beyond the rig's own: carrying, levelling, warming up. */
  readonly extraSetUpMin?: number;
  /** Share of the forecast wind (at 10 m height) that is felt here, [0, 1]. */
  readonly windShare?: number;
  /** Names of the values that are a guess by words and not measured. */
  readonly typical?: readonly string[];
}

/** What is assumed of a month nobody spoke of: mid-latitudes, from memory. */
export const USUAL_CLEAR_CHANCE = 0.4;

/** Whether nobody has said, and no log has taught, how many nights are clear at a place: what is told then is assumed. */
export const isChanceAssumed = (place: Pick<Place, "clearChance" | "typical">, date: NightDate): boolean =>
  (place.typical?.includes("clearChance") ?? false) && clearChanceOn(place, date) === USUAL_CLEAR_CHANCE;

/** Chance that a night at a place is clear, [0, 1]. */
export const clearChanceOn = (place: Pick<Place, "clearChance">, date: NightDate): number =>
  place.clearChance[monthOf(date) - 1] ?? USUAL_CLEAR_CHANCE;

/** Whether one has to travel to a place. */
export const isAway = (place: Pick<Place, "travelMin">): boolean => (place.travelMin ?? 0) > 0;
