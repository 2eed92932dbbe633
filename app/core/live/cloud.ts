import type { RunSheet } from "~/core/night";
import { HOUR_MS, MINUTE_MS, type UtcMs } from "~/core/time";
import type { CloudDecision } from "./event";

/** An hour of the rest of a night. */
export interface HourAhead {
  readonly startMs: UtcMs;
  /** Chance that it is usable, [0, 1], as the sky is known now. */
  readonly clear: number;
  /** Minutes of exposure that the sheet has in it were it clear, and what they count. */
  readonly minutes: number;
}

/** The hours of a night with what its sheet has in each, by their chances. */
export const hoursAhead = (
  sheet: Pick<RunSheet, "lines">,
  hours: readonly { readonly startMs: UtcMs; readonly odds: number }[],
): HourAhead[] =>
  hours.map(({ startMs, odds }) => ({
    startMs,
    clear: odds,
    minutes: sheet.lines.reduce(
      (sum, l) =>
        l.kind === "block"
          ? sum + Math.max(0, Math.min(l.endMs, startMs + HOUR_MS) - Math.max(l.startMs, startMs)) / MINUTE_MS
          : sum,
      0,
    ),
  }));

/** One way to go on under a closed sky. */
export interface CloudChoice {
  readonly does: CloudDecision;
  /** Until when one waits or exposes darks; null = to the end, or not at all. */
  readonly untilMs: UtcMs | null;
  /** Minutes of exposure that it can be expected to bring, and those it gives up. */
  readonly keepsMin: number;
  readonly givesUpMin: number;
  /** Minutes of darks that it brings. */
  readonly darksMin: number;
  /** How long one stays up for it from now on, min. */
  readonly upMin: number;
}

/** What has to be done, and what one's time is worth. */
export interface CloudQuestion {
  readonly nowMs: UtcMs;
  readonly hours: readonly HourAhead[];
  /** Minutes of darks still wanted that the camera can take now. */
  readonly darksMin: number;
  /** Minutes to pack up, and to set up and align anew after one has. */
  readonly packUpMin: number;
}

/** Minutes of exposure to be expected for a minute up, below which nobody stays up for it; a proposal of this project. */
const LEAST_WORTH = 1 / 8;
/** A chance from which on waiting for an hour is called likely; a proposal of this project. */
const LIKELY = 0.5;

/**
 * The ways to go on when the sky closes, the one that brings most for the time one stays up first; what brings less than an eighth of that time in exposure comes last. Waiting goes on until the first hour
 * that is likelier clear than not, or the likeliest of all; what comes from then on is expected hour by hour, each by its own chance. To
 * sleep is to leave the rig standing and to give up the night; to pack up as well, with the work done.
 */
export function cloudChoices({ nowMs, hours, darksMin, packUpMin }: CloudQuestion): readonly CloudChoice[] {
  const ahead = hours.filter((h) => h.startMs + HOUR_MS > nowMs && h.minutes > 0);
  const expected = (fromMs: number) => sum(ahead.filter((h) => h.startMs + HOUR_MS > fromMs).map((h) => h.clear * h.minutes)); // prettier-ignore
  const all = expected(nowMs);
  const likely = ahead.find((h) => h.clear >= LIKELY) ?? ahead.reduce<HourAhead | null>((b, h) => (b === null || h.clear > b.clear ? h : b), null); // prettier-ignore
  const end = ahead.at(-1);
  const upMin = end ? (end.startMs + HOUR_MS - nowMs) / 60_000 : 0;
  const found: CloudChoice[] = [];
  if (likely && end) {
    const untilMs = Math.max(nowMs, likely.startMs) as UtcMs;
    const keepsMin = expected(untilMs);
    const waiting = { untilMs, keepsMin, givesUpMin: all - keepsMin, upMin };
    const dark = Math.min(darksMin, (untilMs - nowMs) / 60_000);
    if (dark > 0) found.push({ does: "darks", ...waiting, darksMin: dark });
    found.push({ does: "wait", ...waiting, darksMin: 0 });
  } else if (darksMin > 0) {
    found.push({ does: "darks", untilMs: null, keepsMin: 0, givesUpMin: all, darksMin, upMin: darksMin });
  }
  found.push({ does: "packUp", untilMs: null, keepsMin: 0, givesUpMin: all, darksMin: 0, upMin: packUpMin });
  found.push({ does: "sleep", untilMs: null, keepsMin: 0, givesUpMin: all, darksMin: 0, upMin: 0 });
  const worth = (c: CloudChoice) => (c.keepsMin + c.darksMin / 10) / Math.max(30, c.upMin);
  const isWorthIt = (c: CloudChoice) => worth(c) >= LEAST_WORTH;
  // What is not worth the hours comes after what ends the night: packed up first, for what is left out is looked after by nobody.
  const rank = (c: CloudChoice) => (isWorthIt(c) ? 0 : c.does === "packUp" ? 1 : c.does === "sleep" ? 2 : 3);
  return found.sort((a, b) => rank(a) - rank(b) || worth(b) - worth(a) || a.upMin - b.upMin);
}

const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);
