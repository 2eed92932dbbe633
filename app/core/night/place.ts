import type { Skyline } from "~/core/sky";

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
}
