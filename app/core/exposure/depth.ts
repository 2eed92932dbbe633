import { fluxRatioToMag } from "~/core/units";
import { ratesOf, type SubQuestion } from "./advice";

export const BOX_ARCSEC = 10; // depth is told for 3σ over a box of 10″ × 10″, as the literature does
const SIGMAS = 3;

/** Noise of a stack per pixel, electrons a second: sky, dark current and reading. Poisson statistics, ideal stacking. */
export const stackNoise = (
  at: { readonly backgroundEPerSec: number; readonly readNoiseE: number },
  subs: number,
  subSec: number,
): number => Math.sqrt(at.backgroundEPerSec * subSec + at.readNoiseE ** 2) / (Math.sqrt(subs) * subSec);

/**
 * Surface brightness, mag/arcsec² on the filter's AB scale, that a stack shows at 3σ over 10″ × 10″:
 * −2.5 log10(3σ/(s·10)) + zero point. Román, Trujillo & Montes 2020, A&A 644, A42, appendix A. Ideal: flats, gradients and
 * correlated noise (and, of a colour camera, that only its green pixels are counted) leave real stacks 0.3 to 1 mag brighter (from memory).
 */
export function limitingSurfaceMag(question: SubQuestion, hours: number, subSec: number): number {
  const { background, readNoiseE, zeroMagRate, pixelScaleArcsecPerPx, pixelShare } = ratesOf(question);
  const subs = (hours * (question.worthRate ?? 1) * 3600) / subSec;
  const noise = stackNoise({ backgroundEPerSec: background, readNoiseE }, subs, subSec);
  return fluxRatioToMag((SIGMAS * noise) / (pixelScaleArcsecPerPx * BOX_ARCSEC * Math.sqrt(pixelShare)) / zeroMagRate);
}
