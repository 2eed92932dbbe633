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
  readonly readNoiseShareAtSub: number;
  /** Stars brighter than this clip at the advised sub. */
  readonly clippedMag: number;
  readonly fwhmPx: number;
}

const LONGEST_SEC = 900; // beyond a quarter of an hour one lost sub costs more than read noise

/**
 * Advises a sub length for one filter on one rig under a sky: the shortest that swamps read noise, unless a protected
 * star or an unguided mount forbids it. Sky brightness in V; a measured value already contains the atmosphere.
 */
export function subAdvice(at: {
  readonly rig: Rig;
  readonly filter: Filter;
  readonly skyMagPerArcsec2: number;
  readonly seeingArcsec: number;
  /** Stars fainter than this must not clip. */
  readonly protectedMag: number;
}): SubAdvice {
  const { rig, filter } = at;
  const optics = opticsOf(rig);
  const reception = {
    ...filter,
    areaM2: optics.apertureAreaM2,
    efficiency: rig.throughput * filter.transmission * rig.quantumEfficiency,
    pixelScaleArcsecPerPx: optics.pixelScaleArcsecPerPx,
  };
  const sky = skyRate(reception, at.skyMagPerArcsec2);
  const background = sky + rig.darkEPerSec;
  const share = CHANNEL_FACTS[filter.channel].readNoiseShare;
  const fwhmPx = Math.max(1, Math.hypot(at.seeingArcsec, optics.diffractionArcsec) / optics.pixelScaleArcsecPerPx);
  const ceiling = ceilingE(rig);
  const zeroMagRate = pointSourceRate(reception, 0);
  const readNoiseSec = shortestSubSec({ readNoiseE: rig.readNoiseE, backgroundEPerSec: background, share });
  const starClippingSec = saturationSec(
    ceiling,
    centralPixelShare(fwhmPx) * zeroMagRate * magToFluxRatio(at.protectedMag) + background,
  );
  const mountSec = rig.isGuided ? Number.POSITIVE_INFINITY : rig.longestUnguidedSec;
  const upper = Math.min(starClippingSec, mountSec, LONGEST_SEC);
  const wanted = niceSubSec(readNoiseSec, "up");
  const fits = wanted <= upper;
  const subSec = fits ? wanted : niceSubSec(upper, "down");
  const capped: SubLimit = upper === mountSec ? "mount" : upper === LONGEST_SEC ? "longestUsual" : "starClipping";
  return {
    subSec,
    decidedBy: fits ? "readNoise" : capped,
    skyEPerPxSec: sky,
    readNoiseSec,
    wantedReadNoiseShare: share,
    starClippingSec,
    mountSec,
    readNoiseShareAtSub: readNoiseShare({ readNoiseE: rig.readNoiseE, backgroundEPerSec: background, subSec }),
    clippedMag: faintestSaturatedMag({ ceilingE: ceiling, zeroMagRate, fwhmPx, backgroundEPerSec: background, subSec }),
    fwhmPx,
  };
}
