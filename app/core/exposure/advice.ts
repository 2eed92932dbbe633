import { opticsOf } from "~/core/framing";
import { rotationSubSec } from "./mount";
import { magToFluxRatio } from "~/core/units";
import { ceilingE, darkRateAt } from "./camera";
import { bestSub, clockYield, lossesAt, USUAL_SPOILT_PER_SEC, type ClockRates } from "./clock";
import { pixelLights } from "./pixel";
import { lineRate, pointSourceRate, skyRate } from "./rates";
import { atSetting, type Filter, type Rig } from "./rig";
import {
  centralPixelShare,
  faintestSaturatedMag,
  NICE_SUBS_SEC,
  niceSubSec,
  readNoiseShare,
  saturationSec,
  USUAL_SUBS_SEC,
} from "./sub-length";

/** What decides a sub length. */
export type SubLimit = "overhead" | "readNoise" | "spoilt" | "protectedStar" | "core" | "mount" | "rotation" | "sky";

/** A sub length with everything that led to it. */
export interface SubAdvice {
  readonly subSec: number;
  readonly decidedBy: SubLimit;
  /** Most by the clock, and the lengths that are as good to 2 %, s. */
  readonly bestSec: number;
  readonly flatFromSec: number;
  readonly flatToSec: number;
  /** Those of them that no other limit forbids; null where one decides. */
  readonly asGood: { readonly fromSec: number; readonly toSec: number } | null;
  /** Above this, sky and dark current take too much of what the sensor holds. MATHS 3.16. */
  readonly skySec: number;
  /** Of a clock hour at the advised length, (0, 1]. */
  readonly clockYield: number;
  readonly overheadSec: number;
  readonly spoiltPerSec: number;
  readonly skyEPerPxSec: number;
  readonly darkEPerPxSec: number;
  readonly sensorC: number;
  /** Above this, a star of the protected magnitude clips; null when none is protected. */
  readonly starClippingSec: number | null;
  /** Above this, the core clips; null when the target has none that is known to be bright. */
  readonly coreSec: number | null;
  readonly mountSec: number;
  /** Above this, the field of a mount in altitude and azimuth trails at the corners; infinite for others. */
  readonly rotationSec: number;
  readonly fwhmPx: number;
}

/** What a sub length is judged for. */
export interface SubQuestion {
  readonly rig: Rig;
  readonly filter: Filter;
  /** Which of the camera's settings; absent = its usual one. */
  readonly setting?: string;
  /** Zenith sky in V; a measured value already contains the atmosphere. */
  readonly skyMagPerArcsec2: number;
  readonly seeingArcsec: number;
  /** Stars fainter than this must not clip; null = stars clip freely. */
  readonly protectedMag: number | null;
  /** V of a core that must not clip, mag/arcsec²; absent or null = none. */
  readonly coreMagPerArcsec2?: number | null;
  /** Air at night; null = not known. Decides the sensor's temperature where there is no cooler. */
  readonly airC?: number | null;
  /** As the log teaches; absent = the usual. */
  readonly spoiltPerSec?: number;
  readonly overheadSec?: number;
  /** How fast the field turns where the target is shot, for a mount in altitude and azimuth; absent or null = not known. */
  readonly rotationDegPerHour?: number | null;
  /** What a minute in the direction shot is worth over one at the zenith: of depth and signal to noise; absent = 1. Sub lengths take the zenith. */
  readonly worthRate?: number;
}

/** What a sub of some length does. */
export interface SubEffects {
  readonly readNoiseShare: number;
  /** Stars brighter than this clip. */
  readonly clippedMag: number;
  readonly clockYield: number;
}

/** Share of what a pixel holds that the sky may fill; the rest is for stars. MATHS 3.16. */
const SKY_FILLS = 0.15;

/** How far a sensor without a cooler runs above the air, °C: 5 to 15, common practice, no source. */
export const USUAL_ABOVE_AIR_C = 10;

/** Temperature of the sensor: what the cooler holds, or the air and what the camera adds to it; without air, what its dark current was measured at. */
export function sensorTempC(rig: Pick<Rig, "isCooled" | "workingTempC" | "aboveAirC">, airC: number | null): number {
  if (rig.isCooled || airC === null) return rig.workingTempC;
  return airC + (rig.aboveAirC ?? USUAL_ABOVE_AIR_C);
}

/** Rates and limits of a filter on a rig under a sky, from which all else follows: of the pixel that sees least, which decides. */
export function ratesOf({ rig: usual, filter, setting, skyMagPerArcsec2, seeingArcsec, airC = null }: SubQuestion) {
  const rig = atSetting(usual, setting);
  const optics = opticsOf(rig);
  const lights = pixelLights(rig, filter).map((light) => {
    const reception = {
      ...light,
      areaM2: optics.apertureAreaM2,
      efficiency: rig.throughput * filter.transmission * rig.quantumEfficiency * light.dye,
      pixelScaleArcsecPerPx: optics.pixelScaleArcsecPerPx,
    };
    return { reception, light, sky: skyRate(reception, skyMagPerArcsec2 + light.skyOffsetMag) };
  });
  const { sky, reception, light } = lights.reduce((least, x) => (x.sky < least.sky ? x : least));
  const sensorC = sensorTempC(rig, airC);
  const dark = darkRateAt(rig.darkEPerSec, rig.workingTempC, sensorC);
  return {
    sky,
    dark,
    sensorC,
    background: sky + dark,
    /** Of the pixel that sees most of the sky. */
    brightestBackground: Math.max(...lights.map((l) => l.sky)) + dark,
    readNoiseE: rig.readNoiseE,
    /** Share of all pixels that are of this kind. */
    pixelShare: light.share,
    fwhmPx: Math.max(1, Math.hypot(seeingArcsec, optics.diffractionArcsec) / optics.pixelScaleArcsecPerPx),
    ceiling: ceilingE(rig),
    zeroMagRate: pointSourceRate(reception, 0),
    /** Of a line of a surface brightness in rayleighs. */
    lineRate: (rayleighs: number) => lineRate(reception, rayleighs),
    /** Of the pixel that clips first. */
    brightestZeroMagRate: Math.max(...lights.map((l) => pointSourceRate(l.reception, 0))),
    coreRate: (mag: number) => skyRate(reception, mag),
    pixelScaleArcsecPerPx: optics.pixelScaleArcsecPerPx,
  };
}

const overheadOf = ({ downloadSec, ditherSec, ditherEvery }: Rig["overheads"]) =>
  downloadSec + ditherSec / Math.max(1, ditherEvery);

/** What a clock hour is made of for a question. */
const clockOf = (at: SubQuestion, rates: ReturnType<typeof ratesOf>): ClockRates => ({
  overheadSec: at.overheadSec ?? overheadOf(at.rig.overheads),
  readNoiseE: rates.readNoiseE,
  backgroundEPerSec: rates.background,
  spoiltPerSec: at.spoiltPerSec ?? USUAL_SPOILT_PER_SEC,
});

/** What a sub of a given length does: noise added by reading, the faintest star that clips, and what a clock hour brings. */
export function subEffects(at: SubQuestion, subSec: number): SubEffects {
  const rates = ratesOf(at);
  const { background, fwhmPx, ceiling, brightestZeroMagRate: zeroMagRate, readNoiseE } = rates;
  return {
    readNoiseShare: readNoiseShare({ readNoiseE, backgroundEPerSec: background, subSec }),
    clippedMag: faintestSaturatedMag({ ceilingE: ceiling, zeroMagRate, fwhmPx, backgroundEPerSec: background, subSec }),
    clockYield: clockYield(clockOf(at, rates), subSec),
  };
}

/**
 * Advises a sub length for one filter on one rig under a sky: the shortest usual one of all that bring, by the clock, as much as the
 * best to 2 %, unless the mount, the level of the sky, a core or a star that somebody protects forbids it. Stars that clip are normal and shorten nothing.
 */
export function subAdvice(at: SubQuestion): SubAdvice {
  const { rig } = at;
  const rates = ratesOf(at);
  const { sky, dark, sensorC, background, fwhmPx, ceiling, brightestZeroMagRate: zeroMagRate } = rates;
  const clock = clockOf(at, rates);
  const best = bestSub(clock);
  const starRate = (mag: number) => centralPixelShare(fwhmPx) * zeroMagRate * magToFluxRatio(mag);
  const starClippingSec =
    at.protectedMag === null ? null : saturationSec(ceiling, starRate(at.protectedMag) + background);
  const coreSec =
    at.coreMagPerArcsec2 == null ? null : saturationSec(ceiling, rates.coreRate(at.coreMagPerArcsec2) + background);
  const mountSec = rig.isGuided ? Number.POSITIVE_INFINITY : rig.longestUnguidedSec;
  const flat = USUAL_SUBS_SEC.find((s) => s >= best.fromSec - 1e-9 && s <= best.toSec + 1e-9);
  const wanted = flat ?? niceSubSec(best.bestSec, "down");
  const rotationSec =
    rig.isAltAz && at.rotationDegPerHour != null
      ? rotationSubSec(rig.sensor, at.rotationDegPerHour)
      : Number.POSITIVE_INFINITY;
  const skySec = (SKY_FILLS * ceiling) / rates.brightestBackground;
  const upper = Math.min(
    mountSec,
    rotationSec,
    skySec,
    coreSec ?? Number.POSITIVE_INFINITY,
    starClippingSec ?? Number.POSITIVE_INFINITY,
  );
  const subSec = wanted <= upper ? wanted : niceSubSec(upper, "down");
  const losses = lossesAt(clock, best.fromSec);
  const free: SubLimit =
    best.toSec < USUAL_SUBS_SEC[0] ? "spoilt" : losses.overhead >= losses.readNoise ? "overhead" : "readNoise";
  const capped: SubLimit =
    upper === skySec
      ? "sky"
      : upper === rotationSec
        ? "rotation"
        : upper === mountSec
          ? "mount"
          : upper === coreSec
            ? "core"
            : "protectedStar";
  return {
    subSec,
    decidedBy: wanted <= upper ? free : capped,
    bestSec: best.bestSec,
    flatFromSec: best.fromSec,
    flatToSec: best.toSec,
    asGood:
      wanted <= upper
        ? { fromSec: Math.min(best.fromSec, subSec), toSec: Math.max(subSec, Math.min(best.toSec, upper)) }
        : null,
    skySec,
    clockYield: clockYield(clock, subSec),
    overheadSec: clock.overheadSec,
    spoiltPerSec: clock.spoiltPerSec,
    skyEPerPxSec: sky,
    darkEPerPxSec: dark,
    sensorC,
    starClippingSec,
    coreSec,
    mountSec,
    rotationSec,
    fwhmPx,
  };
}

/**
 * Length of a second, short set beside subs of a length, s: half of what the core bears, or a tenth; always shorter than those, and
 * what the mount bears. Null where nothing is shorter.
 */
export function shortSetSec(
  advice: Pick<SubAdvice, "coreSec" | "mountSec" | "rotationSec">,
  mainSec: number,
): number | null {
  const wanted = advice.coreSec === null ? mainSec / 10 : advice.coreSec / 2;
  const bound = Math.min(wanted, advice.mountSec, advice.rotationSec);
  const sec = niceSubSec(Math.max(NICE_SUBS_SEC[0], bound), "down");
  const shorter = NICE_SUBS_SEC.filter((s) => s < mainSec && s <= sec).at(-1);
  return shorter ?? null;
}
