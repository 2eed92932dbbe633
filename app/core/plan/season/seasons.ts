import { normalCdf, percentile, randomFrom } from "~/core/numeric";
import { clearAfter } from "~/core/weather";
import { columnOf } from "./columns";
import { IDLE, type Column, type Programmes, type SeasonTask } from "./model";
import { bestColumn, NO_USE, scratchFor } from "./night";
import { nightTable, priorityOf, type NightTable } from "./table";

/** Which lanes share a night's weather, and in what order nights come. */
export interface SeasonWeather {
  /** Number of the night by lane; lanes of one night stand beside each other. */
  readonly nightOf: readonly number[];
  /** Place by lane: lanes of one night and place have the same sky. */
  readonly placeOf: readonly string[];
  /** Lag-1 correlation of clear nights, 0 to under 1. */
  readonly persistence: number;
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

/** How the nights of a season are used: each clear one anew with what is left, or by the plan as it stands and nothing else. */
export type Playing = "anew" | "literally";

const DONE = 0.5; // worth minutes of rest that are none
const SOONER = 0.3; // of its priority: what can be had on a clear night is not left for later, even where later is sure, as evenings are filled
const AT_ONCE = 25; // seasons played between two answers

/** A lane as it is played: alone, when it is clear, with what is left instead of what was needed at first. */
interface Played {
  readonly lane: number;
  readonly table: NightTable;
  readonly own: Column;
  /** Lanes with nothing to choose do what the plan says. */
  readonly isFree: boolean;
  /** By place among its jobs: the most a run of slots brings. */
  readonly mostRun: Float64Array;
}

function playedLane(task: SeasonTask, plan: Programmes, lane: number): Played {
  // Lateness orders nights of a plan; on a night that is clear there is nothing to put off.
  const { lateness: _late, seen: _seen, ...rest } = task.lanes[lane]!;
  const table = nightTable(task, { ...rest, worth: rest.clear ?? rest.worth, chance: 1 });
  const { jobs, slots, clearSums, run } = table;
  const n = jobs.length;
  const mostRun = new Float64Array(n);
  for (let e = 0; e <= slots; e++)
    for (let a = 0; a < n; a++)
      mostRun[a] = Math.max(mostRun[a]!, clearSums[e * n + a]! - clearSums[(e - run[e * n + a]!) * n + a]!);
  return { lane, table, own: columnOf(task, table, plan[lane] ?? []) ?? IDLE, isFree: table.fixed === null, mostRun };
}

/**
 * Plays seasons as the plan would be followed: clear and clouded nights by a two-state chain that keeps the stated chance of every night
 * (`clearAfter`), and on every clear night the programme that is worth most for what is left (the night's own exact program): each worth
 * minute at its priority times the chance that it will be missing in the end, if the rest of the plan is followed. A project is done
 * when no more than `spare` worth minutes of a job are left. `literally` follows the plan as printed instead. Gives what was played
 * so far now and then; repeatable.
 */
export function* seasonsPlayed(
  task: SeasonTask,
  plan: Programmes,
  weather: SeasonWeather,
  at: {
    readonly runs: number;
    readonly seed: number;
    readonly playing?: Playing;
    /** By job: rest that is none, worth minutes; absent = half a minute. */
    readonly spare?: readonly number[];
  },
): Generator<SeasonOdds, SeasonOdds> {
  const { nightOf, placeOf, persistence } = weather;
  const isLiteral = at.playing === "literally";
  const jobs = task.jobs.length;
  const nights = Math.max(0, ...nightOf.map((n) => n + 1));
  const needs = task.jobs.map(({ need, reward }) => need ?? reward.widths.reduce((a, b) => a + b, 0));
  const priority = task.jobs.map((_, k) => priorityOf(task, k));
  const spare = task.jobs.map((_, k) => Math.max(DONE, at.spare?.[k] ?? 0));
  // Nights at several places are spent where the plan spends them, else at the first of them.
  const busy = new Map<number, string>();
  nightOf.forEach((n, l) => {
    const isUsed = (plan[l]?.length ?? 0) > 0;
    if (isUsed || !busy.has(n)) busy.set(n, placeOf[l]!);
  });
  nightOf.forEach((n, l) => ((plan[l]?.length ?? 0) > 0 ? busy.set(n, placeOf[l]!) : undefined));
  const isChoice = new Set((task.choices ?? []).flatMap((c) => c.places.flatMap((p) => p.lanes)));
  const lanes = task.lanes.map((_, l) => playedLane(task, plan, l));
  const byNight = Array.from({ length: nights }, (): Played[] => []);
  lanes.forEach((p, l) => {
    if (!isChoice.has(l) || placeOf[l] === busy.get(nightOf[l]!)) byNight[nightOf[l]!]!.push(p);
  });
  // What the plan still brings after each night, and how much that varies.
  const mean = Array.from({ length: nights + 1 }, () => new Float64Array(jobs));
  const variance = Array.from({ length: nights + 1 }, () => new Float64Array(jobs));
  const inflation = (1 + persistence) / (1 - persistence);
  for (let n = nights - 1; n >= 0; n--) {
    mean[n]!.set(mean[n + 1]!);
    variance[n]!.set(variance[n + 1]!);
    for (const { lane, own } of byNight[n]!) {
      const { chance } = task.lanes[lane]!;
      own.jobs.forEach((k, j) => {
        mean[n]![k]! += chance * own.yields[j]!;
        variance[n]![k]! += inflation * chance * (1 - chance) * own.yields[j]! ** 2;
      });
    }
  }
  const spreadAfter = Array.from({ length: nights }, (_, n) => variance[n + 1]!.map(Math.sqrt));
  const scratch = scratchFor(task, lanes.map((p) => p.table)); // prettier-ignore
  const free = { ...task, tick: 0 };
  const places = [...new Set(placeOf)];
  const placeAt = placeOf.map((p) => places.indexOf(p));
  const chanceAt = Array.from({ length: nights }, (_, n) =>
    places.map((_p, p) => {
      const lane = nightOf.findIndex((night, l) => night === n && placeAt[l] === p);
      return lane === -1 ? null : task.lanes[lane]!.chance;
    }),
  );
  const numbers = [...new Set(task.jobs.map((j) => j.project))];
  const finishes = numbers.map(() => [] as number[]);
  const random = randomFrom(at.seed);
  const left = new Float64Array(jobs);
  const price = new Float64Array(jobs);
  let value = 0;

  const choose = ({ table, own, isFree, mostRun }: Played, n: number): Column => {
    if (isLiteral || !isFree) return own;
    let isWanted = false;
    table.jobs.forEach((k, a) => {
      table.need[a] = left[k]!;
      table.isCapped[a] = mostRun[a]! > left[k]! ? 1 : 0;
      if (left[k]! <= spare[k]!) {
        price[k] = NO_USE;
        return;
      }
      isWanted = true;
      const rest = left[k]! - mean[n + 1]![k]!;
      const spread = spreadAfter[n]![k]!;
      const missing = spread > 1e-9 ? normalCdf(rest / spread) : rest > 0 ? 1 : 0;
      // A plan stays: what it has for the night comes first.
      price[k] = priority[k]! * (own.jobs.includes(k) ? 1 : Math.max(SOONER, missing));
    });
    return isWanted ? bestColumn(free, table, price, scratch) : IDLE;
  };

  const told = (runs: number): SeasonOdds => {
    const within = (list: readonly number[], share: number) => {
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
          tenth: within(list, 0.1),
          half: within(list, 0.5),
          ninetieth: within(list, 0.9),
          doneBy: [...counts].map((c) => (sum += c) / Math.max(1, runs)),
        };
      }),
    };
  };

  for (let run = 0; run < at.runs; run++) {
    left.set(needs);
    const before: (boolean | null)[] = places.map(() => null);
    const chanceBefore: (number | null)[] = places.map(() => null);
    const done = numbers.map(() => Number.POSITIVE_INFINITY);
    let open = numbers.length;
    const check = (n: number) =>
      numbers.forEach((project, i) => {
        if (done[i] !== Number.POSITIVE_INFINITY) return;
        if (!task.jobs.every((j, k) => j.project !== project || left[k]! <= spare[k]!)) return;
        done[i] = n;
        open--;
      });
    for (let n = 0; n < nights && open > 0; n++) {
      const isClear = places.map((_, p) => {
        const chance = chanceAt[n]![p] ?? null;
        if (chance === null) return before[p] ?? false;
        const last = before[p];
        const was = chanceBefore[p];
        chanceBefore[p] = chance;
        if (last === null || last === undefined || was === null || was === undefined) return random() < chance;
        const { afterClear, afterCloud } = clearAfter(was, chance, persistence);
        return random() < (last ? afterClear : afterCloud);
      });
      let isShot = false;
      for (const played of byNight[n]!) {
        if (!isClear[placeAt[played.lane]!]) continue;
        const best = choose(played, n);
        if (best === IDLE) continue;
        isShot = true;
        value -= task.tick * best.blocks.length;
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
    if ((run + 1) % AT_ONCE === 0 && run + 1 < at.runs) yield told(run + 1);
  }
  return told(at.runs);
}

/** Seasons played, with nothing of the way to it. */
export function playSeasons(...of: Parameters<typeof seasonsPlayed>): SeasonOdds {
  const work = seasonsPlayed(...of);
  for (let step = work.next(); ; step = work.next()) if (step.done) return step.value;
}
