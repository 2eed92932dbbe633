import type { Kind } from "./entry";

/** Mean V surface brightness over the whole outline, mag/arcsec²: m + 2.5 log₁₀(π/4 · a · b · 3600), axes in arcmin. Only a mean: cores are brighter. */
export const meanSurfaceBrightness = (magnitude: number, majorArcmin: number, minorArcmin: number): number =>
  magnitude + 2.5 * Math.log10((Math.PI / 4) * majorArcmin * minorArcmin * 3600);

/** Class 1 (bright) to 6 (faint) of a mean surface brightness; null for kinds whose magnitude does not describe their area. */
export function sbClassOf(kind: Kind, skyMagPerArcsec2: number): number | null {
  if (kind !== "galaxy" && kind !== "globularCluster" && kind !== "planetaryNebula") return null;
  const above = [20.5, 21.8, 22.8, 24, 25.5].findIndex((limit) => skyMagPerArcsec2 < limit);
  return above === -1 ? 6 : above + 1;
}
