import { magToFluxRatio } from "~/core/units";
import { extinctionMagPerAirmass } from "./extinction";
import { scatteringTerms, thinAirmass } from "./moonlight";

const SUN_K = 5772; // IAU 2015 resolution B3
const V_NM = 550;

/** Photons per nm of a black body, arbitrary scale. */
const photons = (nm: number) => 1 / (nm ** 4 * (Math.exp(1.438777e7 / (nm * SUN_K)) - 1));

/**
 * Moonlit sky photons per nm at a wavelength, relative to V: sunlight × lunar albedo rising to the red × Rayleigh and
 * aerosol scattering × extinction. An extension of Krisciunas & Schaefer made for this project, ± 20 %; meant for
 * 450–700 nm, separations over 20°, both zenith distances under 70°.
 */
export function moonColourFactor(at: {
  readonly wavelengthNm: number;
  readonly separationDeg: number;
  readonly zenithDistanceDeg: number;
  readonly moonZenithDistanceDeg: number;
  readonly elevationM: number;
}): number {
  const ratio = at.wavelengthNm / V_NM;
  const { rayleigh, mie } = scatteringTerms(at.separationDeg);
  const scattering = (rayleigh * ratio ** -4.09 + mie * ratio ** -1.3) / (rayleigh + mie);
  const [k, kV] = [
    extinctionMagPerAirmass(at.wavelengthNm, at.elevationM),
    extinctionMagPerAirmass(V_NM, at.elevationM),
  ];
  const path = (ext: number, z: number) => 1 - magToFluxRatio(ext * thinAirmass(z));
  const source = (photons(at.wavelengthNm) / photons(V_NM)) * ratio ** 0.9;
  const inward = magToFluxRatio((k - kV) * thinAirmass(at.moonZenithDistanceDeg));
  return source * scattering * inward * (path(k, at.zenithDistanceDeg) / k / (path(kV, at.zenithDistanceDeg) / kV));
}
