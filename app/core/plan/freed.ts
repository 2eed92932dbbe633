import type { Channel } from "~/core/exposure";
import type { RunSheet } from "~/core/night";
import { MINUTE_MS, utcMs, type UtcInterval, type UtcMs } from "~/core/time";

/** Something that hours left over could be given to: a target on the wish list, and when it can be taken. */
export interface WishOffer {
  readonly targetId: string;
  readonly name: string;
  readonly channel: Channel;
  readonly windows: readonly UtcInterval[];
  /** Worth of a stretch, minutes at the target's best. */
  readonly worthMin: (from: UtcMs, to: UtcMs) => number;
}

/** Darks that are due: how many are missing, of what length. */
export interface DarksDue {
  readonly count: number;
  readonly exposureSec: number;
}

/** Dark hours of an evening whose goals are met, and what they are good for. */
export interface FreedHours {
  readonly fromMs: UtcMs;
  readonly toMs: UtcMs;
  /** The best of the wishes, and when. */
  readonly wish: (Pick<WishOffer, "targetId" | "name" | "channel"> & UtcInterval) | null;
  /** Darks for what is left after that, as many as fit; null where none are due, or none fit. */
  readonly darks: (DarksDue & { readonly fromMs: UtcMs }) | null;
}

const LEAST_MIN = 45; // less dark time after the last sub is not worth a word; a proposal of this project
const LEAST_WORTH_MIN = 20; // of a wish, at its best; as of an evening of the plan
const READ_OUT_SEC = 4; // between two darks; from memory

/**
 * What is done with the dark hours after the last sub of a sheet: the wish that they are worth most for, then darks that are due.
 * Null where the night is used to its end, and where something is left to do: then it ends for another reason, a target that sets, cloud
 * that comes in, or so many hours a night at most.
 */
export function freedHours(
  sheet: Pick<RunSheet, "lines" | "leftOver">,
  at: {
    readonly darkEndMs: UtcMs;
    readonly wishes: readonly WishOffer[];
    readonly darks: readonly DarksDue[];
    /** From one target to another. */
    readonly slewMin: number;
  },
): FreedHours | null {
  const last = sheet.lines.findLast((l) => l.kind === "block");
  if (!last || sheet.leftOver.length > 0 || at.darkEndMs - last.endMs < LEAST_MIN * MINUTE_MS) return null;
  const from = last.endMs + at.slewMin * MINUTE_MS;
  let wish: FreedHours["wish"] = null;
  let most = LEAST_WORTH_MIN;
  for (const { targetId, name, channel, windows, worthMin } of at.wishes)
    for (const w of windows) {
      const [startMs, endMs] = [utcMs(Math.max(from, w.startMs)), utcMs(Math.min(at.darkEndMs, w.endMs))];
      if (endMs - startMs < LEAST_MIN * MINUTE_MS) continue;
      const worth = worthMin(startMs, endMs);
      if (worth > most) [wish, most] = [{ targetId, name, channel, startMs, endMs }, worth];
    }
  const darksFrom = wish?.endMs ?? last.endMs;
  const [due] = at.darks
    .map((d) => ({
      ...d,
      count: Math.min(d.count, Math.floor((at.darkEndMs - darksFrom) / 1000 / (d.exposureSec + READ_OUT_SEC))),
      fromMs: darksFrom,
    }))
    .filter((d) => d.count > 0)
    .sort((a, b) => b.count * b.exposureSec - a.count * a.exposureSec);
  return { fromMs: last.endMs, toMs: at.darkEndMs, wish, darks: due ?? null };
}
