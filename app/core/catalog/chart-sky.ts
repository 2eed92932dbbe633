import type { Vec3 } from "~/core/sky";
import type { StarZones } from "./stars";

/** Sky data a chart draws from. */
export interface SkyData {
  readonly stars: StarZones;
  /** [ra, dec, magnitude, name, hip] of stars with a name. */
  readonly named: readonly (readonly [number, number, number, string, number])[];
  /** Those names by Hipparcos number. */
  readonly nameOf: ReadonlyMap<number, string>;
  /** Stick figures: runs of [ra, dec]. */
  readonly figures: readonly (readonly (readonly [number, number])[])[];
  /** Borders of the constellations: runs of directions, close enough to follow their curves. */
  readonly borders: readonly (readonly Vec3[])[];
}
