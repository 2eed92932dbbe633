import { percentile, randomFrom } from "~/core/numeric";
import { clearAfter } from "~/core/weather";
import { Follower } from "./following";
import { IDLE, type Programmes, type SeasonTask } from "./model";
import { priorityOf } from "./table";

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
const AT_ONCE = 25; // seasons played between two answers

/** What is followed: a plan, with what the solver knows of it. */
export interface FollowedPlan {
  readonly plan: Programmes;
  readonly prices: readonly number[];
  readonly pools: readonly Programmes[];
}

/** Whether it is clear, by number of the night and name of the place. */
export type Skies = (night: number, place: string) => boolean;

/** The last night that is known of. */
interface LastNight {
  readonly chance: number;
  readonly isClear: boolean;
}

function chanceAfter(last: LastNight | null, chance: number, persistence: number): number {
  if (last === null) return chance;
  const { afterClear, afterCloud } = clearAfter(last.chance, chance, persistence);
  return last.isClear ? afterClear : afterCloud;
}

/** Draws one season after the other by a two-state chain that keeps the stated chance of every night (`clearAfter`), at each place its own. */
function* drawnSkies(task: SeasonTask, weather: SeasonWeather, seed: number): Generator<Skies, never> {
  const { nightOf, placeOf, persistence } = weather;
  const nights = Math.max(0, ...nightOf.map((n) => n + 1));
  const places = [...new Set(placeOf)];
  const chanceAt = places.map((place) => {
    const chances: (number | null)[] = Array.from({ length: nights }, () => null);
    nightOf.forEach((n, l) => (placeOf[l] === place ? (chances[n] ??= task.lanes[l]!.chance) : undefined));
    return chances;
  });
  const random = randomFrom(seed);
  const isClear = places.map(() => new Uint8Array(nights));
  const skies: Skies = (night, place) => isClear[places.indexOf(place)]![night] === 1;
  for (;;) {
    places.forEach((_, p) => {
      let last: LastNight | null = null;
      for (let n = 0; n < nights; n++) {
        const chance: number | null = chanceAt[p]![n]!;
        if (chance === null) continue;
        const now: boolean = random() < chanceAfter(last, chance, persistence);
        isClear[p]![n] = now ? 1 : 0;
        last = { chance, isClear: now };
      }
    });
    yield skies;
  }
}

/** Where nights are spent: those at several places where the plan spends them, else at the first of them; by lane. */
function openLanes(task: SeasonTask, plan: Programmes, { nightOf, placeOf }: SeasonWeather): readonly boolean[] {
  const busy = new Map<number, string>();
  nightOf.forEach((n, l) => ((plan[l]?.length ?? 0) > 0 ? busy.set(n, placeOf[l]!) : undefined));
  nightOf.forEach((n, l) => (busy.has(n) ? undefined : busy.set(n, placeOf[l]!)));
  const isChoice = new Set((task.choices ?? []).flatMap((c) => c.places.flatMap((p) => p.lanes)));
  return task.lanes.map((_, l) => !isChoice.has(l) || placeOf[l] === busy.get(nightOf[l]!));
}

/**
 * Plays seasons as the plan would be followed: on every clear night what planning anew with what is left would have one do
 * (`Follower`), or the plan as printed (`literally`). A project is done when no more than `spare` worth minutes of a job are left.
 * Gives what was played so far now and then; repeatable.
 */
export function* seasonsPlayed(
  task: SeasonTask,
  followed: FollowedPlan,
  weather: SeasonWeather,
  at: {
    readonly runs: number;
    readonly seed: number;
    readonly playing?: Playing;
    /** By job: rest that is none, worth minutes; absent = half a minute. */
    readonly spare?: readonly number[];
    /** The weather of each season; absent = drawn by the chances of the lanes. */
    readonly skies?: (run: number) => Skies;
  },
): Generator<SeasonOdds, SeasonOdds> {
  const { nightOf, placeOf } = weather;
  const isLiteral = at.playing === "literally";
  const nights = Math.max(0, ...nightOf.map((n) => n + 1));
  const needs = task.jobs.map(({ need, reward }) => need ?? reward.widths.reduce((a, b) => a + b, 0));
  const priority = task.jobs.map((_, k) => priorityOf(task, k));
  const spare = task.jobs.map((_, k) => Math.max(DONE, at.spare?.[k] ?? 0));
  const isOpen = openLanes(task, followed.plan, weather);
  const lanesOf = Array.from({ length: nights }, (): number[] => []);
  nightOf.forEach((n, l) => (isOpen[l] ? lanesOf[n]!.push(l) : undefined));
  const follower = new Follower(task, {
    ...followed,
    nightOf,
    isOpen: (l) => isOpen[l]!,
    persistence: weather.persistence,
  });
  const drawn = drawnSkies(task, weather, at.seed);
  const numbers = [...new Set(task.jobs.map((j) => j.project))];
  const finishes = numbers.map(() => [] as number[]);
  const left = new Float64Array(task.jobs.length);
  let value = 0;

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
    follower.begin();
    const skies = at.skies?.(run) ?? drawn.next().value;
    const done = numbers.map(() => Number.POSITIVE_INFINITY);
    let open = numbers.length;
    for (let n = 0; n < nights && open > 0; n++) {
      let isNew = true; // what is left, since prices were last reckoned
      let isShot = false;
      for (const l of lanesOf[n]!) {
        if (!skies(n, placeOf[l]!)) continue;
        const best = isLiteral ? follower.asPlanned(l) : follower.choose(l, n, left, spare, isNew);
        isNew = false;
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
      if (!isShot) continue;
      numbers.forEach((project, i) => {
        if (done[i] !== Number.POSITIVE_INFINITY) return;
        if (!task.jobs.every((j, k) => j.project !== project || left[k]! <= spare[k]!)) return;
        done[i] = n;
        open--;
      });
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
