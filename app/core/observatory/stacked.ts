import { lightModel, objectRate, type ObjectLight, type SubQuestion } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import { normalQuantile, randomFrom } from "~/core/numeric";
import { degToRad } from "~/core/units";
import { FADED, MIDDLE_OVER_EDGE, patchProfile } from "./frame-pixels";

/** An object and what it is taken with. */
export interface StackAsk {
  readonly question: Pick<SubQuestion, "rig" | "filter" | "setting" | "skyMagPerArcsec2" | "airC" | "worthRate">;
  readonly light: ObjectLight;
  readonly majorArcmin: number;
  readonly minorArcmin: number;
  readonly positionAngleDeg: number;
  readonly subSec: number;
  /** Side of a pixel of the picture, arcsec: the element that hours are reckoned by. */
  readonly pxArcsec: number;
}

/** Pictures of one object after more and more hours, stretched alike. */
export interface StackedPictures {
  /** A side, px of the picture. */
  readonly sidePx: number;
  /** All of the object, or a piece of its faint part beside empty sky where it is larger than the picture. */
  readonly isWhole: boolean;
  /** One for each of the hours asked, grey from 0 to 255, row by row from the top. */
  readonly pictures: readonly Uint8ClampedArray[];
  /** Signal over noise of one pixel of the picture at the object's edge, for each. */
  readonly edgeSnr: readonly number[];
}

const PIECE = 0.3; // radius of a piece, of the picture's side
const BLACK_SIGMA = 3; // black lies so far below the sky, in the noise of the deepest picture

/**
 * How an object shows after so many hours by the model that frames are made by: its smooth patch on an even sky with the noise of a
 * stack, all stretched between the same black and white. An object larger than the picture shows as a round piece of its faint part. `hours` are kept hours as goals count
 * them. What is left out: gradients, stars, detail, and what processing makes of it.
 */
export function stackedPictures(ask: StackAsk, hours: readonly number[], sidePx: number, seed = 1): StackedPictures {
  const { question, light, subSec } = ask;
  const { kinds } = lightModel(question, subSec);
  const sum = (of: (k: (typeof kinds)[number]) => number) => kinds.reduce((s, k) => s + k.share * of(k), 0);
  const edge = sum((k) => objectRate(k, light));
  const rest = sum((k) => k.sky + k.rest);
  const { pxArcsec } = ask;
  const bin = pxArcsec / opticsOf(question.rig).pixelScaleArcsecPerPx;
  const isWhole = 2 * FADED * ask.majorArcmin * 30 <= sidePx * pxArcsec;
  const [semiMajor, semiMinor] = isWhole
    ? [ask.majorArcmin * 30, ask.minorArcmin * 30]
    : [PIECE * sidePx * pxArcsec, PIECE * sidePx * pxArcsec];
  const most = isWhole ? MIDDLE_OVER_EDGE : 1;
  const seconds = hours.map((h) => h * 3600 * (question.worthRate ?? 1));
  /** Of one pixel of the picture, e⁻/s of one of the camera. */
  const sigma = (signal: number, sec: number) => Math.sqrt((signal + rest) / sec) / bin;
  const deepest = Math.max(...seconds);
  const black = -BLACK_SIGMA * sigma(0, deepest);
  const white = Math.max(1.5 * most * edge, 6 * sigma(0, deepest));
  const turn = degToRad(90 + ask.positionAngleDeg);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const random = randomFrom(seed);
  const pictures = seconds.map((sec) =>
    Uint8ClampedArray.from({ length: sidePx * sidePx }, (_, i) => {
      const dx = ((i % sidePx) - (sidePx - 1) / 2) * pxArcsec;
      const dy = ((sidePx - 1) / 2 - Math.floor(i / sidePx)) * pxArcsec;
      const u = (dx * cos + dy * sin) / semiMajor;
      const v = (dy * cos - dx * sin) / semiMinor;
      const signal = edge * Math.min(most, patchProfile(u * u + v * v));
      const seen = signal + sigma(signal, sec) * normalQuantile(Math.max(1e-9, random()));
      return (255 * (seen - black)) / (white - black);
    }),
  );
  return { sidePx, isWhole, pictures, edgeSnr: seconds.map((sec) => edge / sigma(edge, sec)) };
}
