import { magToFluxRatio } from "~/core/units";

/**
 * Zenith in twilight, mag/arcsec² with the Sun d = 5…15° below the horizon: a + b(d − 5) + c(d − 5)², by wavelength. B, V, R and I of
 * Patat, Ugolnikov & Postylyakov 2006, A&A 455, 385, from memory; the dark sky beside them Patat 2003, A&A 400, 1183, from memory.
 */
const BANDS = [
  { nm: 445, a: 11.84, b: 1.411, c: -0.041, dark: 22.64 },
  { nm: 550, a: 11.84, b: 1.518, c: -0.057, dark: 21.61 },
  { nm: 640, a: 11.4, b: 1.567, c: -0.064, dark: 20.87 },
  { nm: 800, a: 10.93, b: 1.47, c: -0.062, dark: 19.71 },
] as const;
const [SHALLOWEST_DEG, DEEPEST_DEG] = [5, 15];
/** Beyond 15° the light of the Sun falls by so many powers of ten a degree. A proposal. */
const DECAY_PER_DEG = 0.6;

/** Above this depression of the Sun nobody exposes for the deep sky, and no formula here holds, degrees. */
export const TWILIGHT_BEGINS_DEG = SHALLOWEST_DEG;

/** What twilight adds to one of the bands over a dark sky, as a flux ratio to magnitude 0 per arcsec². */
function addedIn({ a, b, c, dark }: (typeof BANDS)[number], depressionDeg: number): number {
  const d = Math.min(Math.max(depressionDeg, SHALLOWEST_DEG), DEEPEST_DEG) - SHALLOWEST_DEG;
  const added = magToFluxRatio(a + b * d + c * d ** 2) - magToFluxRatio(dark);
  return Math.max(0, added) * 10 ** (-DECAY_PER_DEG * Math.max(0, depressionDeg - DEEPEST_DEG));
}

/**
 * Light that twilight adds to the zenith per arcsec² at a wavelength, as a flux ratio to magnitude 0; the Sun `depressionDeg` below the
 * horizon, not less than 5°. Between bands by wavelength, in the logarithm. Towards the Sun it is brighter, away from it darker.
 */
export function twilightFlux(wavelengthNm: number, depressionDeg: number): number {
  const nm = Math.min(Math.max(wavelengthNm, BANDS[0].nm), BANDS.at(-1)!.nm);
  const i = Math.max(
    1,
    BANDS.findIndex((band) => nm <= band.nm),
  );
  const [low, high] = [BANDS[i - 1]!, BANDS[i]!];
  const share = (nm - low.nm) / (high.nm - low.nm);
  return addedIn(low, depressionDeg) ** (1 - share) * addedIn(high, depressionDeg) ** share;
}
