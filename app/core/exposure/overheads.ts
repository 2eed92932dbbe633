import type { Overheads, Rig } from "./rig";

/** Clock seconds from one sub to the next, dithers shared out. */
export const cycleSec = (subSec: number, o: Overheads): number =>
  subSec + o.downloadSec + o.ditherSec / Math.max(1, o.ditherEvery);

/** Share of the clock that is exposure in a long run of one panel and filter, focusing included. */
export const efficiencyOf = (subSec: number, o: Overheads): number =>
  (subSec / cycleSec(subSec, o)) * (1 - o.focusMin / o.focusEveryMin);

/** Whole subs in `clockSec` with set-up, flips and panel changes taken off first; what does not fit is lost. MATHS 3.12. */
export function subsInTime(
  clockSec: number,
  subSec: number,
  o: Overheads,
  extra: { readonly flips: number; readonly panelChanges: number },
): number {
  const left = clockSec - o.setUpMin * 60 - extra.flips * o.flipMin * 60 - extra.panelChanges * o.panelChangeSec;
  return Math.max(0, Math.floor((left * (1 - o.focusMin / o.focusEveryMin)) / cycleSec(subSec, o)));
}

const HEADER_BLOCKS = 2;
/** Bytes of a file of a rig's camera: 16 bits a pixel in records of 2880 (FITS Standard 4.0), two of them header. Compression not counted. */
export const fileBytes = ({ sensor }: Pick<Rig, "sensor">): number => {
  const pixels = Math.floor(sensor.widthPx / sensor.binning) * Math.floor(sensor.heightPx / sensor.binning);
  return 2880 * (HEADER_BLOCKS + Math.ceil((pixels * 2) / 2880));
};

/** Clock hours that `exposureHours` take in nights of `nightHours`: cycles, focus, and per night a set-up and a flip. */
export function clockHoursFor(exposureHours: number, subSec: number, o: Overheads, nightHours: number): number {
  const running = exposureHours / efficiencyOf(subSec, o);
  const nights = Math.ceil(running / Math.max(0.5, nightHours));
  return running + (nights * (o.setUpMin + o.flipMin)) / 60;
}

/**
 * Exposure that a clear night adds to a goal, hours: its minutes by worth, against the best minute, with what the clock takes for
 * itself, as the reference counts them (MATHS 3.12).
 */
export const nightDepthHours = (night: {
  /** Worth of the usable minutes, summed. */
  readonly worthMin: number;
  /** Worth of a minute at the target's best. */
  readonly bestRate: number;
  /** Hours at the reference that an hour with this kit is. */
  readonly hourIs: number;
  readonly subSec: number;
  readonly overheads: Overheads;
}): number => (night.worthMin / night.bestRate / 60) * night.hourIs * efficiencyOf(night.subSec, night.overheads);
