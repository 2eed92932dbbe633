import { monthOf, type NightDate } from "~/core/time";

/** Whether a night at a place was clear, as far as anybody wrote down. */
export interface NightOutcome {
  readonly night: NightDate;
  readonly isClear: boolean;
}

/** Chance of a clear night in a month, drawn from a guess and from what was logged. */
export interface LearntChance {
  readonly chance: number;
  readonly nights: number;
  readonly clear: number;
}

const PRIOR_NIGHTS = 20; // what the place's own guess weighs, in nights a month; a proposal of this project
/** Lag-1 correlation of clear nights, 0.3–0.5, from memory. */
export const NIGHT_PERSISTENCE = 0.35;

/**
 * Mean chance after `clear` of `nights`, from a guess worth 20 nights: Beta prior (Gelman et al., Bayesian Data Analysis,
 * ch. 2). `likeness` > 0 lets nights in a row count for less: n is divided by (1 + r)/(1 − r).
 */
export function posteriorChance(guess: number, clear: number, nights: number, likeness = 0): number {
  const inflation = (1 + likeness) / (1 - likeness);
  return (guess * PRIOR_NIGHTS + clear / inflation) / (PRIOR_NIGHTS + nights / inflation);
}

/**
 * The twelve chances of a place, learnt from the nights somebody wrote down. A night without an entry is missing, not cloudy.
 * People write down good nights more often: ask about the others.
 */
export function learnChances(guess: readonly number[], outcomes: readonly NightOutcome[]): LearntChance[] {
  return guess.map((p, i) => {
    const mine = outcomes.filter((o) => monthOf(o.night) === i + 1);
    const clear = mine.filter((o) => o.isClear).length;
    return {
      chance: posteriorChance(p, clear, mine.length, NIGHT_PERSISTENCE),
      nights: mine.length,
      clear,
    };
  });
}
