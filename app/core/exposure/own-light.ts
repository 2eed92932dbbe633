import { ratesOf, type SubQuestion } from "./advice";
import { isNarrow } from "./channel";
import { magToFluxRatio } from "~/core/units";

/** A faint object as most are: the one that hours are weighed for where nothing better is known. MATHS 6.2. */
const USUAL_OBJECT_MAG = 24; // mag/arcsec², broad bands
const USUAL_LINE_RAYLEIGHS = 20; // narrow bands

/**
 * What a rig sees beside the sky in one filter, over the zenith sky there: the light of a usual faint object, and dark current and
 * reading of a sub (MATHS 6.2). Both 0 or more.
 */
export function ownLightOf(question: SubQuestion, subSec: number): { readonly object: number; readonly rest: number } {
  const { sky, dark, readNoiseE, zeroMagRate, lineRate, pixelScaleArcsecPerPx } = ratesOf(question);
  const object = isNarrow(question.filter.channel)
    ? lineRate(USUAL_LINE_RAYLEIGHS)
    : zeroMagRate * magToFluxRatio(USUAL_OBJECT_MAG) * pixelScaleArcsecPerPx ** 2;
  return { object: object / sky, rest: (dark + readNoiseE ** 2 / subSec) / sky };
}
