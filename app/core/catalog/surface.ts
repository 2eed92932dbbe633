import type { CatalogEntry } from "./entry";

/** A round disc of one arcminute across, in square arcseconds. */
const ARCSEC2_PER_ROUND_ARCMIN = (Math.PI / 4) * 3600;

/**
 * Mean surface brightness, V mag/arcsec²: m + 2.5 log10(π/4 · a · b · 3600), a and b in arcmin. A definition. Null without
 * magnitude or size, and for kinds whose catalogue magnitude belongs to stars and not to the area (clusters, nebulae). The
 * middle of a galaxy is two or three magnitudes brighter than its mean, its arms fainter.
 */
export function surfaceBrightness(
  entry: Pick<CatalogEntry, "kind" | "magnitude" | "majorArcmin" | "minorArcmin">,
): number | null {
  const { kind, magnitude, majorArcmin } = entry;
  if (kind !== "galaxy" && kind !== "globularCluster" && kind !== "planetaryNebula") return null;
  if (magnitude === null || majorArcmin === null) return null;
  return magnitude + 2.5 * Math.log10(ARCSEC2_PER_ROUND_ARCMIN * majorArcmin * (entry.minorArcmin ?? majorArcmin));
}

const CLASS_LIMITS = [20.5, 21.8, 22.8, 24, 25.5] as const;

/** Class 1 (bright) to 6 (faint) of a mean surface brightness, as the hand-picked objects are classed. */
export const surfaceClass = (magPerArcsec2: number): number => {
  const i = CLASS_LIMITS.findIndex((limit) => magPerArcsec2 < limit);
  return i === -1 ? 6 : i + 1;
};
