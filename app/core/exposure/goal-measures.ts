import { magToFluxRatio } from "~/core/units";
import { ratesOf, type SubQuestion } from "./advice";
import type { Channel } from "./channel";
import { BOX_ARCSEC, limitingSurfaceMag } from "./depth";
import { stackSnr, subsForSnr } from "./snr";

/** One goal in the measures people think in; all from the same model, ideal stacking without the Moon, in the direction that the question tells. */
export interface GoalMeasures {
  readonly hours: number;
  /** Whole subs that these hours hold. */
  readonly subs: number;
  /** What is seen at 3σ over 10″ × 10″, mag/arcsec². */
  readonly depthMag: number;
  /** Of an object of the brightness asked for, over 10″ × 10″. */
  readonly snr: number;
}

/** Rates of an object of a surface brightness on the filter's AB scale, and how many pixels of the colour a 10″ box holds. */
function objectIn(question: SubQuestion, objectMag: number) {
  const { background, readNoiseE, zeroMagRate, pixelScaleArcsecPerPx: scale, pixelShare } = ratesOf(question);
  return {
    rates: { object: zeroMagRate * magToFluxRatio(objectMag) * scale ** 2, sky: background, dark: 0, readNoiseE },
    boxPixels: (BOX_ARCSEC / scale) ** 2 * pixelShare,
  };
}

/** Hours of subs of one length in every measure. */
export function measuresOf(question: SubQuestion, hours: number, subSec: number, objectMag: number): GoalMeasures {
  const { rates, boxPixels } = objectIn(question, objectMag);
  const subs = (hours * 3600) / subSec;
  return {
    hours,
    subs: Math.floor(subs + 1e-9),
    depthMag: limitingSurfaceMag(question, hours, subSec),
    snr: stackSnr(rates, subs * (question.worthRate ?? 1), subSec) * Math.sqrt(boxPixels),
  };
}

/** A goal as somebody gives it. */
export type GoalAsked =
  | { readonly measure: "subs"; readonly subs: number }
  | { readonly measure: "depth"; readonly depthMag: number }
  | { readonly measure: "snr"; readonly snr: number; readonly objectMag: number };

/** Hours of subs of one length that come to a goal; the inverse of `measuresOf`. */
export function hoursForGoal(question: SubQuestion, subSec: number, asked: GoalAsked): number {
  switch (asked.measure) {
    case "subs":
      return (asked.subs * subSec) / 3600;
    case "depth":
      // The limit rises by 2.5 log10 √t.
      return 10 ** ((asked.depthMag - limitingSurfaceMag(question, 1, subSec)) / 1.25);
    case "snr": {
      const { rates, boxPixels } = objectIn(question, asked.objectMag);
      const subs = subsForSnr(rates, asked.snr / Math.sqrt(boxPixels), subSec) / (question.worthRate ?? 1);
      return (subs * subSec) / 3600;
    }
  }
}

/** How a sum of hours is shared out among channels. */
export type HoursShare = "equal" | "narrow344" | "narrow12" | "broad3111" | "broad41" | "equalSnr";

/** The shares that make sense for channels: by their number and kind. */
export function sharesFor(channels: readonly Channel[]): HoursShare[] {
  const has = (...all: Channel[]) => all.length === channels.length && all.every((c) => channels.includes(c));
  return [
    ...(channels.length > 1 ? (["equal"] as const) : []),
    ...(has("Ha", "OIII", "SII") ? (["narrow344"] as const) : []),
    ...(has("Ha", "OIII") ? (["narrow12"] as const) : []),
    ...(has("L", "R", "G", "B") ? (["broad3111"] as const) : []),
    ...(has("R", "G", "B", "Ha") || has("L", "R", "G", "B", "Ha") ? (["broad41"] as const) : []),
    ...(channels.length > 1 ? (["equalSnr"] as const) : []),
  ];
}

/**
 * Hours by channel that add up to a sum: alike, 3 : 4 : 4 for Ha, OIII and SII, 1 : 2 for Ha and OIII, 3 : 1 : 1 : 1 for L, R, G and B,
 * a fifth for the Ha of a galaxy, or so that an object as
 * bright in each comes to the same signal to noise (which grows with the root of the hours).
 */
export function sharedHours(
  share: HoursShare,
  sum: number,
  rows: readonly { readonly channel: Channel; readonly question: SubQuestion; readonly subSec: number }[],
  objectMag: number,
): number[] {
  // Of what is not hydrogen, in the weights of the others.
  const broadSum = rows.reduce((all, { channel }) => all + (channel === "Ha" ? 0 : channel === "L" ? 3 : 1), 0);
  const weights = rows.map(({ channel, question, subSec }) => {
    if (share === "narrow344") return channel === "Ha" ? 3 : 4;
    if (share === "narrow12") return channel === "OIII" ? 2 : 1;
    if (share === "broad3111") return channel === "L" ? 3 : 1;
    if (share === "broad41") return channel === "Ha" ? broadSum / 4 : channel === "L" ? 3 : 1;
    return share === "equal" ? 1 : 1 / measuresOf(question, 1, subSec, objectMag).snr ** 2;
  });
  const total = weights.reduce((a, b) => a + b, 0);
  return weights.map((w) => (sum * w) / total);
}
