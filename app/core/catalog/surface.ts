import type { CatalogEntry, Kind } from "./entry";

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

/** Middles of the classes 1 to 6, mag/arcsec². */
const CLASS_MIDDLES = [19.5, 21.1, 22.3, 23.4, 24.7, 26.2] as const;
/** What kinds without a magnitude of their own come to as a rule; from memory. */
const USUAL: Partial<Readonly<Record<Kind, number>>> = {
  galaxy: 23.5,
  globularCluster: 21.5,
  planetaryNebula: 22.5,
  emissionNebula: 24.3,
  reflectionNebula: 24,
  supernovaRemnant: 25.3,
  wolfRayetNebula: 25,
};

/**
 * Mean surface brightness by which a chart draws an object as a soft patch, V mag/arcsec²: from magnitude and size, else from its
 * class, else what its kind has as a rule. A model for drawing only. Null for what is no patch: clusters, clouds of stars, dark
 * nebulae.
 */
export function drawnBrightness(
  entry: Pick<CatalogEntry, "kind" | "magnitude" | "majorArcmin" | "minorArcmin" | "curated">,
): number | null {
  const measured = surfaceBrightness(entry);
  if (measured !== null) return measured;
  const usual = USUAL[entry.kind] ?? null;
  const curated = entry.curated ? CLASS_MIDDLES[entry.curated.sbClass - 1] : undefined;
  return usual === null ? null : (curated ?? usual);
}
