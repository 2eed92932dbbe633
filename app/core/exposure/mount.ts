import { clamp, degToRad } from "~/core/units";

/** Trail that a round star bears, px; common practice, no source. */
export const BORNE_TRAIL_PX = 1.5;
/** Share of subs that should come out round. */
const WANTED_SHARE = 0.8;
/** Drift in declination for each arcmin of polar error, at most, arcsec a second. MATHS C3.14. */
const POLAR_DRIFT_ARCSEC_PER_SEC = 0.2625 / 60;

/** What a mount without guiding does wrong. */
export interface Wander {
  /** Peak to peak. */
  readonly periodicErrorArcsec: number;
  readonly wormSec: number;
  readonly polarErrorArcmin: number;
}

/**
 * Share of subs of a length whose trail by a single sine of periodic error stays within a tolerance, 0 to 1. Valid up to a tenth of
 * the worm's period.
 */
export function roundShare(
  { periodicErrorArcsec: p, wormSec }: Omit<Wander, "polarErrorArcmin">,
  toleranceArcsec: number,
  sec: number,
): number {
  const swing = p * Math.sin((Math.PI * Math.min(sec, wormSec / 2)) / wormSec);
  if (toleranceArcsec <= 0) return 0;
  return swing <= toleranceArcsec ? 1 : (2 / Math.PI) * Math.asin(clamp(toleranceArcsec / swing, 0, 1));
}

/** The longest sub, whole seconds, of which four in five come out round without guiding; 1 at least, 3600 at most. */
export function unguidedSubSec(wander: Wander, pixelScaleArcsec: number): number {
  const borne = BORNE_TRAIL_PX * pixelScaleArcsec;
  const isRound = (sec: number) =>
    roundShare(wander, borne - wander.polarErrorArcmin * POLAR_DRIFT_ARCSEC_PER_SEC * sec, sec) >= WANTED_SHARE;
  let [low, high] = [1, 3600];
  while (low < high) {
    const mid = Math.ceil((low + high) / 2);
    if (isRound(mid)) low = mid;
    else high = mid - 1;
  }
  return low;
}

/** The longest sub, s, before the corner of a sensor trails by a turning field (`degPerHour`), without a rotator. MATHS 3.10. */
export function rotationSubSec(
  sensor: { readonly widthPx: number; readonly heightPx: number; readonly binning: number },
  degPerHour: number,
): number {
  const cornerPx = Math.hypot(sensor.widthPx, sensor.heightPx) / 2 / sensor.binning;
  const radPerSec = degToRad(Math.abs(degPerHour)) / 3600;
  return radPerSec === 0 ? Number.POSITIVE_INFINITY : BORNE_TRAIL_PX / (cornerPx * radPerSec);
}
