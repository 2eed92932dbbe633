import { normalCdf, percentile, randomFrom } from "~/core/numeric";
import { IDLE, type Column, type Programme, type Programmes, type SeasonTask } from "./model";
import { columnOf, nightTable } from "./night";
import { topSlope } from "./reward";

/** Which lanes share a night's weather, and in what order nights come. */
export interface SeasonWeather {
  /** Number of the night by lane; lanes of one night stand beside each other. */
  readonly nightOf: readonly number[];
  /** Place by lane: lanes of one night and place have the same sky. */
  readonly placeOf: readonly string[];
  /** Lag-1 correlation of clear nights, 0 to under 1. */
  readonly persistence: number;
  /** Whether the night before the first was clear; null = nobody knows. */
  readonly wasClear: boolean | null;
}

/** When a project comes to its end, over all seasons played. */
export interface ProjectOdds {
  readonly project: number;
  /** Night (number) by which a tenth, half and nine tenths of the seasons are done; null = not within the season. */
  readonly tenth: number | null;
  readonly half: number | null;
  readonly ninetieth: number | null;
  /** Share of seasons done by the end of each night; never falls. */
  readonly doneBy: readonly number[];
}

/** What seasons came to. */
export interface SeasonOdds {
  readonly projects: readonly ProjectOdds[];
  /** Mean worth of a season, in the plan's own measure. */
  readonly value: number;
  readonly runs: number;
}

const POOL = 12;
const DONE = 0.5; // worth minutes of rest that are none
const SOONER = 0.03; // of its priority: what can be had tonight is not left for later, even where later is sure; a proposal of this project

/** The programmes a lane may choose from: the plan's own, and the best of others given. */
function poolsOf(task: SeasonTask, plan: Programmes, others: readonly (readonly Programme[])[]): Column[][] {
  return task.lanes.map((lane, l) => {
    const table = nightTable(task, { ...lane, chance: 1 });
    const wanted = [plan[l] ?? [], ...(table.fixed ? [] : (others[l] ?? []))].slice(0, POOL);
    const columns = wanted.flatMap((blocks) => columnOf(task, table, blocks) ?? []);
    return columns.includes(IDLE) || table.fixed ? columns : [...columns, IDLE];
  });
}

/**
 * Plays seasons as the plan would be followed: clear and clouded nights by a two-state chain (Gabriel & Neumann 1962, QJRMS 88,
 * 90), and on every clear night, of a dozen programmes, the one worth most: each worth minute at its priority times the chance
 * that it will be missing in the end, if the rest of the plan is followed. That is within 3 % of planning anew every night in
 * worth (PLAN.md 5); its dates are those of this rule. Repeatable.
 */
export function playSeasons(
  task: SeasonTask,
  plan: Programmes,
  others: readonly (readonly Programme[])[],
  weather: SeasonWeather,
  { runs, seed }: { readonly runs: number; readonly seed: number },
): SeasonOdds {
  const { nightOf, placeOf, persistence } = weather;
  const pools = poolsOf(task, plan, others);
  const jobs = task.jobs.length;
  const nights = Math.max(0, ...nightOf.map((n) => n + 1));
  const needs = task.jobs.map(({ reward }) => reward.widths.reduce((a, b) => a + b, 0));
  const priority = task.jobs.map(({ reward }) => topSlope(reward));
  // What the plan still brings after each night, and how much that varies.
  const mean = Array.from({ length: nights + 1 }, () => new Float64Array(jobs));
  const variance = Array.from({ length: nights + 1 }, () => new Float64Array(jobs));
  const inflation = (1 + persistence) / (1 - persistence);
  for (let n = nights - 1; n >= 0; n--) {
    mean[n]!.set(mean[n + 1]!);
    variance[n]!.set(variance[n + 1]!);
    nightOf.forEach((night, l) => {
      if (night !== n) return;
      const { chance } = task.lanes[l]!;
      const own = pools[l]![0] ?? IDLE;
      own.jobs.forEach((k, j) => {
        mean[n]![k]! += chance * own.yields[j]!;
        variance[n]![k]! += inflation * chance * (1 - chance) * own.yields[j]! ** 2;
      });
    });
  }
  const spreadAfter = Array.from({ length: nights }, (_, n) => variance[n + 1]!.map(Math.sqrt));
  const usedBy = pools.map((pool) => [...new Set(pool.flatMap((c) => c.jobs))]);
  const lanesOf = Array.from({ length: nights }, (_, n) => nightOf.flatMap((night, l) => (night === n ? [l] : [])));
  const places = [...new Set(placeOf)];
  const placeAt = placeOf.map((p) => places.indexOf(p));
  const numbers = [...new Set(task.jobs.map((j) => j.project))];
  const finishes = numbers.map(() => [] as number[]);
  const random = randomFrom(seed);
  const left = new Float64Array(jobs);
  const price = new Float64Array(jobs);
  let value = 0;
  for (let run = 0; run < runs; run++) {
    needs.forEach((need, k) => (left[k] = need));
    const before = places.map(() => weather.wasClear);
    const done = numbers.map(() => Number.POSITIVE_INFINITY);
    const check = (n: number) =>
      numbers.forEach((project, i) => {
        if (done[i] !== Number.POSITIVE_INFINITY) return;
        if (task.jobs.every((j, k) => j.project !== project || left[k]! <= DONE)) done[i] = n;
      });
    for (let n = 0; n < nights; n++) {
      const isClear = places.map((_, p) => {
        const lane = lanesOf[n]!.find((l) => placeAt[l] === p);
        if (lane === undefined) return before[p] ?? false;
        const { chance } = task.lanes[lane]!;
        const last = before[p];
        const now =
          last === null || last === undefined
            ? chance
            : last
              ? chance + persistence * (1 - chance)
              : chance * (1 - persistence);
        return random() < now;
      });
      let isShot = false;
      for (const l of lanesOf[n]!) {
        if (!isClear[placeAt[l]!]) continue;
        const pool = pools[l]!;
        for (const k of usedBy[l]!) {
          if (left[k]! <= 0) {
            price[k] = 0;
            continue;
          }
          const rest = left[k]! - mean[n + 1]![k]!;
          const spread = spreadAfter[n]![k]!;
          const missing = spread > 1e-9 ? normalCdf(rest / spread) : rest > 0 ? 1 : 0;
          price[k] = priority[k]! * Math.max(SOONER, missing);
        }
        let best = IDLE;
        let most = 0;
        for (const column of pool) {
          let worth = -column.cost;
          for (let j = 0; j < column.jobs.length; j++) {
            const k = column.jobs[j]!;
            worth += price[k]! * Math.min(column.yields[j]!, left[k]!);
          }
          if (worth > most) {
            most = worth;
            best = column;
          }
        }
        if (best === IDLE) continue;
        isShot = true;
        value -= best.cost;
        for (let j = 0; j < best.jobs.length; j++) {
          const k = best.jobs[j]!;
          const given = Math.min(best.yields[j]!, left[k]!);
          value += priority[k]! * given;
          left[k]! -= given;
        }
      }
      if (isShot) check(n);
      isClear.forEach((is, p) => (before[p] = is));
    }
    done.forEach((n, i) => finishes[i]!.push(n));
  }
  const at = (list: readonly number[], share: number) => {
    const n = percentile([...list], share);
    return Number.isFinite(n) ? n : null;
  };
  return {
    runs,
    value: runs > 0 ? value / runs : 0,
    projects: numbers.map((project, i) => {
      const list = finishes[i]!;
      const counts = new Float64Array(nights);
      for (const n of list) if (Number.isFinite(n)) counts[n]!++;
      let sum = 0;
      return {
        project,
        tenth: at(list, 0.1),
        half: at(list, 0.5),
        ninetieth: at(list, 0.9),
        doneBy: [...counts].map((c) => (sum += c) / runs),
      };
    }),
  };
}
