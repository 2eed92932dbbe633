/** One night of a target from another place. All in hours' worth at home's moonless zenith. */
export interface DriveQuestion {
  readonly homeWorthMin: number;
  readonly thereWorthMin: number;
  readonly thereUsableMin: number;
  /** One way. */
  readonly travelMin: number;
}

/** From how many clear minutes there a drive pays; never = not even when all of the night is clear. */
export type DriveAnswer = { readonly kind: "never" } | { readonly kind: "from"; readonly clearMin: number };

/**
 * Driving pays when the night there brings home's whole night and one minute more for every minute on the road, both ways:
 * the measure of the verdict on Tonight. Clear minutes there are taken as worth the night's mean.
 */
export function drivePays(at: DriveQuestion): DriveAnswer {
  if (at.thereUsableMin <= 0 || at.thereWorthMin <= 0) return { kind: "never" };
  const clearMin = ((at.homeWorthMin + 2 * at.travelMin) * at.thereUsableMin) / at.thereWorthMin;
  return clearMin <= at.thereUsableMin ? { kind: "from", clearMin } : { kind: "never" };
}
