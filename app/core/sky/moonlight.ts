import { degToRad, magToFluxRatio } from "~/core/units";

/** Airmass of scattered light, (1 − 0.96 sin² Z)^−½: 1 at the zenith, 5 at the horizon. Krisciunas & Schaefer 1991, eq. 3. */
export const thinAirmass = (zenithDistanceDeg: number): number =>
  (1 - 0.96 * Math.sin(degToRad(Math.min(zenithDistanceDeg, 90))) ** 2) ** -0.5;

/** Relative illuminance of the Moon outside the air by phase angle (0 full). Krisciunas & Schaefer 1991, eq. 20; no opposition surge. */
export const moonIlluminance = (phaseAngleDeg: number): number =>
  magToFluxRatio(3.84 + 0.026 * Math.abs(phaseAngleDeg) + 4e-9 * phaseAngleDeg ** 4);

/** Rayleigh and Mie parts of the scattering function at a separation; below 10° the steep inner law. Krisciunas & Schaefer 1991, eqs. 16–19, 21. */
export function scatteringTerms(separationDeg: number): { readonly rayleigh: number; readonly mie: number } {
  const rho = Math.max(separationDeg, 0.25);
  return {
    rayleigh: 10 ** 5.36 * (1.06 + Math.cos(degToRad(rho)) ** 2),
    mie: rho >= 10 ? 10 ** (6.15 - rho / 40) : 6.2e7 / rho ** 2,
  };
}

/**
 * Sky brightness that the Moon adds at a point, in nanolamberts of V; 0 with the Moon's centre below the horizon.
 * Krisciunas & Schaefer 1991, PASP 103, 1033, eq. 15: 8–23 % in clear air by its authors, far worse in haze. Not valid
 * within 10° of the Moon.
 */
export function moonlightNanolambert(at: {
  readonly phaseAngleDeg: number;
  readonly separationDeg: number;
  readonly zenithDistanceDeg: number;
  readonly moonZenithDistanceDeg: number;
  readonly extinctionMag: number;
}): number {
  if (at.moonZenithDistanceDeg > 90) return 0;
  const { rayleigh, mie } = scatteringTerms(at.separationDeg);
  const throughAir = magToFluxRatio(at.extinctionMag * thinAirmass(at.moonZenithDistanceDeg));
  const scattered = 1 - magToFluxRatio(at.extinctionMag * thinAirmass(at.zenithDistanceDeg));
  return (rayleigh + mie) * moonIlluminance(at.phaseAngleDeg) * throughAir * scattered;
}
