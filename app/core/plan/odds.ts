import { percentile, randomFrom } from "~/core/numeric";
import { clearChanceOn } from "~/core/night";
import type { NightDate } from "~/core/time";
import { allocate, type Need, type NightOffer, type PlanRules } from "./allocate";

/** When a project would be done, as odds. */
export interface FinishOdds {
  /** Night by which 10, 50 and 90 % of the simulated futures are done; null = later than the last night offered. */
  readonly tenth: NightDate | null;
  readonly half: NightDate | null;
  readonly ninetieth: NightDate | null;
  /** Share of futures done by the end of each night offered, [0, 1]; never falls. */
  readonly doneBy: readonly number[];
  /** Share of futures done within the nights offered. */
  readonly doneShare: number;
  readonly runs: number;
}

/**
 * Plays the offered nights with clear and clouded ones by a two-state Markov chain (Gabriel & Neumann 1962, QJRMS 88, 90):
 * monthly clear chance p, day-to-day correlation r (0.3–0.5 from memory). A clear night is clear throughout. Repeatable.
 */
export function simulateFinish(
  needs: readonly Need[],
  offers: readonly NightOffer[],
  rules: PlanRules,
  weather: {
    readonly clearChance: readonly number[];
    readonly persistence: number;
    readonly runs: number;
    readonly seed: number;
  },
): FinishOdds {
  const random = randomFrom(weather.seed);
  const finishes: number[] = [];
  for (let run = 0; run < weather.runs; run++) {
    let wasClear: boolean | null = null;
    const clear = offers.filter((offer) => {
      const p = clearChanceOn(weather, offer.date);
      const chance: number =
        wasClear === null ? p : wasClear ? p + weather.persistence * (1 - p) : p * (1 - weather.persistence);
      wasClear = random() < chance;
      return wasClear;
    });
    const { finishedOn } = allocate(needs, clear, rules);
    finishes.push(finishedOn === null ? Number.POSITIVE_INFINITY : offers.findIndex((o) => o.date === finishedOn));
  }
  const at = (share: number) => offers[percentile(finishes, share)]?.date ?? null;
  return {
    tenth: at(0.1),
    half: at(0.5),
    ninetieth: at(0.9),
    doneBy: offers.map((_, i) => finishes.filter((f) => f <= i).length / weather.runs),
    doneShare: finishes.filter(Number.isFinite).length / weather.runs,
    runs: weather.runs,
  };
}
