const GLASS_INDEX = 1.52; // of the usual filter glass

/**
 * How much further back the focus lies behind a plane filter, mm: t (1 − 1/n), about a third of its thickness. `focalRatio` asks
 * for the marginal ray of a fast beam: t (1 − cos θ/√(n² − sin² θ)), tan θ = 1/(2N). Exact for a plane plate in air.
 */
export function focusShiftMm(thicknessMm: number, focalRatio?: number, index = GLASS_INDEX): number {
  if (focalRatio === undefined) return thicknessMm * (1 - 1 / index);
  const theta = Math.atan(1 / (2 * focalRatio));
  return thicknessMm * (1 - Math.cos(theta) / Math.sqrt(index ** 2 - Math.sin(theta) ** 2));
}

/** Full width of the critical focus zone, µm: 4.88 λ N² (common practice; diffraction only, the air usually allows more). */
export const criticalFocusZoneUm = (focalRatio: number, wavelengthNm = 550): number =>
  4.88 * (wavelengthNm / 1000) * focalRatio ** 2;
