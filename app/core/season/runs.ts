import type { NightDate } from "~/core/time";
import { addNights } from "~/core/time";
import { clearAfter } from "~/core/weather";

/** How likely a night's run is to have been begun, or to begin, and when. */
export interface RunOdds {
  /** Chance that a night is one of so many clear ones in a row, if it is clear itself. */
  readonly share: readonly number[];
  /** Chance that so many clear nights in a row begin with a night. */
  readonly begins: readonly number[];
}

/** The odds of runs of clear nights by the chances of single ones; the nights before the first by what is known of the last. */
export function runOdds(
  chances: readonly number[],
  run: number,
  persistence: number,
  wasClear: boolean | null,
): RunOdds {
  const at = (n: number) => chances[Math.min(Math.max(0, n), chances.length - 1)] ?? 0;
  /** That a night is clear after the one before it was. */
  const onAfter = (n: number) => clearAfter(at(n - 1), at(n), persistence).afterClear;
  const forward = (n: number, more: number) => {
    let odds = 1;
    for (let i = 1; i <= more; i++) odds *= onAfter(n + i);
    return odds;
  };
  /** That the night before a clear one was clear: the chain read backwards; before the first by what is known, or by the place. */
  const clearBefore = (n: number) => {
    if (n === 0 && wasClear !== null) return wasClear ? 1 : 0;
    if (n <= 0) return clearAfter(at(0), at(0), persistence).afterClear;
    return at(n) > 0 ? Math.min(1, (at(n - 1) * onAfter(n)) / at(n)) : 0;
  };
  /** That exactly so many nights before a clear one were clear. */
  const before = (n: number, count: number) => {
    let odds = 1;
    for (let i = 0; i < count; i++) odds *= clearBefore(n - i);
    return odds * (1 - clearBefore(n - count));
  };
  return {
    share: chances.map((_, n) => {
      let odds = 0;
      let rest = 1;
      for (let count = 0; count < run - 1; count++) {
        const exactly = before(n, count);
        odds += exactly * forward(n, run - 1 - count);
        rest -= exactly;
      }
      return Math.min(1, Math.max(0, odds + Math.max(0, rest)));
    }),
    begins: chances.map((chance, n) => chance * forward(n, run - 1)),
  };
}

/** From what chance on that a clear night is one of a whole run it is taken; a proposal of this project. */
export const RUN_ODDS = 0.5;

/** How a project that wants clear nights in a row stands tonight. */
export interface RunStanding {
  readonly run: number;
  /** Chance that tonight, if it is clear, is one of such a run. */
  readonly odds: number;
  /** The night from which on it is likeliest to begin in the next days, and how likely. */
  readonly best: { readonly night: NightDate; readonly odds: number };
  readonly waits: boolean;
}

const LOOK_AHEAD = 10; // nights; beyond them one is like another

/** How a project that wants clear nights in a row stands on the first night of some. */
export function runStanding(
  from: NightDate,
  chances: readonly number[],
  run: number,
  persistence: number,
  wasClear: boolean | null,
): RunStanding {
  const { share, begins } = runOdds(chances, run, persistence, wasClear);
  const odds = share[0] ?? 0;
  const ahead = begins.slice(0, LOOK_AHEAD);
  const n = ahead.reduce((best, o, i) => (o > ahead[best]! + 1e-9 ? i : best), 0);
  return { run, odds, best: { night: addNights(from, n), odds: ahead[n] ?? 0 }, waits: odds < RUN_ODDS };
}
