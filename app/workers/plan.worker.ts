import { expose } from "comlink";
import type { Channel } from "~/core/exposure";
import type { MoonWishes, Place } from "~/core/night";
import { NIGHT_PERSISTENCE } from "~/core/weather";
import {
  allocate,
  nightOffers,
  simulateFinish,
  type FinishOdds,
  type Need,
  type NightOffer,
  type PlanResult,
  type PlanRules,
} from "~/core/plan";
import type { Equatorial } from "~/core/sky";
import type { NightDate } from "~/core/time";

/** What a plan is made for. */
export interface PlanRequest {
  readonly place: Place;
  readonly moon: MoonWishes;
  readonly target: Equatorial<"icrs">;
  readonly needs: readonly Need[];
  readonly channels: readonly Channel[];
  readonly rules: PlanRules;
  readonly from: NightDate;
  /** Nights looked at; the first 60 are shown. */
  readonly count: number;
  readonly runs: number;
}

/** A plan with its odds. */
export interface PlanAnswer {
  readonly offers: readonly NightOffer[];
  readonly plan: PlanResult;
  readonly odds: FinishOdds;
}

const SEED = 20_261_205; // fixed, so that two plans differ by their inputs only

const api = {
  plan(r: PlanRequest, onProgress: (share: number) => void): PlanAnswer {
    const offers = nightOffers(r, (done) => {
      if (done % 10 === 0) onProgress((0.7 * done) / r.count);
    });
    const odds = simulateFinish(r.needs, offers, r.rules, {
      clearChance: r.place.clearChance,
      persistence: NIGHT_PERSISTENCE,
      runs: r.runs,
      seed: SEED,
    });
    return { offers, plan: allocate(r.needs, offers, r.rules), odds };
  },
};

export type PlanApi = typeof api;
expose(api);
