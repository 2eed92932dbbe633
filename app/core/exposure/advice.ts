import { opticsOf } from "~/core/framing";
import { magToFluxRatio } from "~/core/units";
import { ceilingE } from "./camera";
import { CHANNEL_FACTS } from "./channel";
import { pointSourceRate, skyRate } from "./rates";
import type { Filter, Rig } from "./rig";
import {
  centralPixelShare,
  faintestSaturatedMag,
  niceSubSec,
  readNoiseShare,
  saturationSec,
  shortestSubSec,
} from "./sub-length";

/** What decides a sub length. */
export type SubLimit = "readNoise" | "starClipping" | "mount" | "longestUsual";

/** A sub length with everything that led to it. */
export interface SubAdvice {
  readonly subSec: number;
  readonly decidedBy: SubLimit;
  readonly skyEPerPxSec: number;
  /** Below this, read noise adds more than the wanted share. */
  readonly readNoiseSec: number;
  readonly wantedReadNoiseShare: number;
  /** Above this, a star of the protected magnitude clips. */
  readonly starClippingSec: number;
  readonly mountSec: number;
  readonly fwhmPx: number;
}

const LONGEST_SEC = 900; // beyond a quarter of an hour one lost sub costs more than read noise

/** What a sub length is judged for. */
export interface SubQuestion {
  readonly rig: Rig;
  readonly filter: Filter;
  /** Zenith sky in V; a measured value already contains the atmosphere. */
  readonly skyMagPerArcsec2: number;
  readonly seeingArcsec: number;
  /** Stars fainter than this must not clip. */
  readonly protectedMag: number;
}

/** What a sub of some length does. */
export interface SubEffects {
  readonly readNoiseShare: number;
  /** Stars brighter than this clip. */
  readonly clippedMag: number;
}

/** Rates and limits of a filter on a rig under a sky, from which all else follows. */
export function ratesOf({ rig, filter, skyMagPerArcsec2, seeingArcsec }: SubQuestion) {
  const optics = opticsOf(rig);
  const reception = {
    ...filter,
    areaM2: optics.apertureAreaM2,
    efficiency: rig.throughput * filter.transmission * rig.quantumEfficiency,
    pixelScaleArcsecPerPx: optics.pixelScaleArcsecPerPx,
  };
  const sky = skyRate(reception, skyMagPerArcsec2);
  return {
    sky,
    background: sky + rig.darkEPerSec,
    fwhmPx: Math.max(1, Math.hypot(seeingArcsec, optics.diffractionArcsec) / optics.pixelScaleArcsecPerPx),
    ceiling: ceilingE(rig),
    zeroMagRate: pointSourceRate(reception, 0),
    pixelScaleArcsecPerPx: optics.pixelScaleArcsecPerPx,
  };
}

/** What a sub of a given length does: noise added by reading, and the faintest star that clips. */
export function subEffects(at: SubQuestion, subSec: number): SubEffects {
  const { background, fwhmPx, ceiling, zeroMagRate } = ratesOf(at);
  return {
    readNoiseShare: readNoiseShare({ readNoiseE: at.rig.readNoiseE, backgroundEPerSec: background, subSec }),
    clippedMag: faintestSaturatedMag({ ceilingE: ceiling, zeroMagRate, fwhmPx, backgroundEPerSec: background, subSec }),
  };
}

/**
 * Advises a sub length for one filter on one rig under a sky: the shortest that swamps read noise, unless a protected
 * star or an unguided mount forbids it.
 */
export function subAdvice(at: SubQuestion): SubAdvice {
  const { rig, filter } = at;
  const { sky, background, fwhmPx, ceiling, zeroMagRate } = ratesOf(at);
  const share = CHANNEL_FACTS[filter.channel].readNoiseShare;
  const readNoiseSec = shortestSubSec({ readNoiseE: rig.readNoiseE, backgroundEPerSec: background, share });
  const starRate = centralPixelShare(fwhmPx) * zeroMagRate * magToFluxRatio(at.protectedMag);
  const starClippingSec = saturationSec(ceiling, starRate + background);
  const mountSec = rig.isGuided ? Number.POSITIVE_INFINITY : rig.longestUnguidedSec;
  const upper = Math.min(starClippingSec, mountSec, LONGEST_SEC);
  const wanted = niceSubSec(readNoiseSec, "up");
  const fits = wanted <= upper;
  const capped: SubLimit = upper === mountSec ? "mount" : upper === LONGEST_SEC ? "longestUsual" : "starClipping";
  return {
    subSec: fits ? wanted : niceSubSec(upper, "down"),
    decidedBy: fits ? "readNoise" : capped,
    skyEPerPxSec: sky,
    readNoiseSec,
    wantedReadNoiseShare: share,
    starClippingSec,
    mountSec,
    fwhmPx,
  };
}
