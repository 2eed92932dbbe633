import { opticsOf } from "~/core/framing";
import { magToFluxRatio } from "~/core/units";
import { sensorTempC } from "./advice";
import { darkRateAt } from "./camera";
import type { ObjectLight } from "./object-light";
import { LINE_NM, pictureLights, type PixelLight } from "./pixel";
import { lineRate, skyRate } from "./rates";
import { atSetting, type Filter, type Rig } from "./rig";

/** What is asked of a rig under a sky, in one filter. */
export interface RateQuestion {
  readonly rig: Rig;
  readonly filter: Filter;
  /** Which of the camera's settings; absent = its usual one. */
  readonly setting?: string;
  /** Zenith sky in V, mag/arcsec². */
  readonly skyMagPerArcsec2: number;
  /** Air at night; null = not known. */
  readonly airC?: number | null;
}

/** What one kind of pixel takes in, e⁻/px/s: of every rayleigh of a line, of a surface of magnitude 0 per arcsec², of the sky, of itself. */
export interface PixelModel {
  readonly ha: number;
  readonly oiii: number;
  readonly sii: number;
  readonly zeroMag: number;
  readonly sky: number;
  /** Dark current, and reading of a sub over its length. */
  readonly rest: number;
  /** Of all pixels. */
  readonly share: number;
}

/** A rig behind a filter under a sky, with subs of a length: all that hours and the worth of a minute follow from. */
export interface LightModel {
  readonly kinds: readonly PixelModel[];
  readonly pixelScaleArcsecPerPx: number;
}

/** Share of a line that a photo camera's own filter lets through as it is sold; common practice, from memory. */
const STOCK_PASSES = { ha: 0.25, oiii: 1, sii: 0.15 } as const;
const NM = { ha: LINE_NM.Ha, oiii: LINE_NM.OIII, sii: LINE_NM.SII } as const;

/** Whether a line lies in the band of a pixel. */
const sees = (light: PixelLight, nm: number) => Math.abs(nm - light.centreNm) <= light.bandwidthNm / 2;

/**
 * Rates of every kind of pixel behind a filter: a line where the band holds it, everything else over the whole band, the sky in its
 * own colour. A pixel without a narrow filter sees a line against the sky of its whole band (MATHS 3.15).
 */
export function lightModel(at: RateQuestion, subSec: number): LightModel {
  const { pixelScaleArcsecPerPx } = opticsOf(at.rig);
  const kinds = pictureLights(at.rig, at.filter).map((pixel) => pixelModel(at, pixel, subSec));
  return { kinds, pixelScaleArcsecPerPx };
}

/** Rates of one kind of pixel behind a filter. */
export function pixelModel(at: RateQuestion, pixel: PixelLight, subSec: number): PixelModel {
  const rig = atSetting(at.rig, at.setting);
  const { apertureAreaM2: areaM2, pixelScaleArcsecPerPx } = opticsOf(rig);
  const efficiency = rig.throughput * at.filter.transmission * rig.quantumEfficiency * pixel.dye;
  const reception = { ...pixel, areaM2, efficiency, pixelScaleArcsecPerPx };
  const line = (of: keyof typeof NM) =>
    sees(pixel, NM[of]) ? lineRate(reception, 1) * (rig.isStock ? STOCK_PASSES[of] : 1) : 0;
  const dark = darkRateAt(rig.darkEPerSec, rig.workingTempC, sensorTempC(rig, at.airC ?? null));
  return {
    ha: line("ha"),
    oiii: line("oiii"),
    sii: line("sii"),
    zeroMag: skyRate(reception, 0),
    sky: skyRate(reception, at.skyMagPerArcsec2 + pixel.skyOffsetMag),
    rest: dark + rig.readNoiseE ** 2 / subSec,
    share: pixel.share,
  };
}

/** Of an object in one kind of pixel, e⁻/px/s. */
export const objectRate = (k: PixelModel, light: ObjectLight): number =>
  k.ha * light.ha +
  k.oiii * light.oiii +
  k.sii * light.sii +
  (light.magPerArcsec2 === null ? 0 : k.zeroMag * magToFluxRatio(light.magPerArcsec2));

/** What kinds of pixel count: all together, or the one that sees its line best. */
export type Together = "all" | "best";

/** SNR² a second over one pixel's area: O²/(O + S + Dk + R²/t), by kind of pixel. MATHS 6.2. */
export function snr2Rate({ kinds }: LightModel, light: ObjectLight, together: Together = "all"): number {
  const rates = kinds.map((k) => {
    const object = objectRate(k, light);
    return (k.share * object ** 2) / (object + k.sky + k.rest);
  });
  return together === "best" ? Math.max(...rates) : rates.reduce((a, b) => a + b, 0);
}

/** Longest side of a resolution element that is asked for, arcsec. */
const WIDEST_ARCSEC = 10;

/** Side of the element that a picture of an object is judged by: three pixels at least, else the blur, or a 250th of a large object, arcsec. MATHS 3.15. */
export const elementArcsec = (at: {
  readonly pixelScaleArcsecPerPx: number;
  readonly fwhmArcsec: number;
  readonly majorArcmin: number;
}): number =>
  Math.max(
    3 * at.pixelScaleArcsecPerPx,
    Math.min(WIDEST_ARCSEC, Math.max(1.5 * at.fwhmArcsec, (at.majorArcmin * 60) / 250)),
  );

/** Exposure for a signal-to-noise of 1 over an element of a side, s. Infinite where nothing of the object is seen. */
export function unitSnrSec(model: LightModel, light: ObjectLight, sideArcsec: number, together?: Together): number {
  const pixels = (sideArcsec / model.pixelScaleArcsecPerPx) ** 2;
  return 1 / (pixels * snr2Rate(model, light, together));
}

const HOURS_AT_ONE = 57;
/**
 * Exposure to begin with, hours: 57 √T1, T1 in hours. People settle for less where it is hard: constant and exponent are fitted to
 * what they take (MATHS 3.15), within 1.2 for broad light, 1.6 for lines.
 */
export const habitHours = (unitSec: number): number => HOURS_AT_ONE * Math.sqrt(unitSec / 3600);

/** Beside the zenith sky, over it, kinds of pixel together: the object's own light; dark current and reading. Both 0 or more. */
export interface BesideSky {
  readonly object: number;
  readonly rest: number;
}

/** The two constants by which a job's minutes are weighed. MATHS 6.2. */
export function besideSky({ kinds }: LightModel, light: ObjectLight): BesideSky {
  // A kind of pixel that sees nothing of the object adds noise to no picture of it.
  const seeing = kinds.filter((k) => objectRate(k, light) > 0);
  const counted = seeing.length > 0 ? seeing : kinds;
  const sum = (of: (k: PixelModel) => number) => counted.reduce((s, k) => s + k.share * of(k), 0);
  const sky = sum((k) => k.sky);
  return { object: sum((k) => objectRate(k, light)) / sky, rest: sum((k) => k.rest) / sky };
}

/** The same constants under another zenith sky, V mag/arcsec². */
export function underSky({ object, rest }: BesideSky, fromMag: number, toMag: number): BesideSky {
  const darker = magToFluxRatio(fromMag - toMag); // over 1 under a darker sky
  return { object: object * darker, rest: rest * darker };
}
