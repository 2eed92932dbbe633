import { HOUR_MS, MINUTE_MS, utcMs, type UtcMs } from "~/core/time";
import { channelsText, type PlannedBlock } from "~/core/season";
import type { WeighedNight } from "./weigh";

/** What to do next in a night that is under way. */
export type RestStep =
  /** On with what is planned now, or on to what took its place. */
  | {
      readonly kind: "shoot";
      readonly rigId: string;
      readonly projectId: string;
      readonly channels: string;
      readonly fromMs: UtcMs;
      readonly untilMs: UtcMs;
      /** What the plan had before, where that was another target; and what more the change counts, minutes at their best. */
      readonly insteadOf: { readonly projectId: string; readonly gainMin: number } | null;
    }
  | { readonly kind: "wait"; readonly untilMs: UtcMs; readonly odds: number }
  /** The camera has nothing better to do. */
  | { readonly kind: "darks"; readonly minutes: number }
  | {
      readonly kind: "packUp";
      readonly byMs: UtcMs;
      readonly why: "rain" | "over" | "unlikely" | "noHours" | "allDone";
    };

/** The rest of a night, in order, and what going home now would give up. */
export interface RestOfNight {
  readonly steps: readonly RestStep[];
  /** Usable minutes still to be expected. */
  readonly expectedMin: number;
}

const SOON_MIN = 15; // a shorter wait is none
const DARKS_MIN = 20; // a shorter one is not worth the cap
const LEAST_MIN = 25; // expected; for less nobody stays out; a proposal of this project

/** A stretch and the rigs that it is for. */
export type RigBlock = PlannedBlock & { readonly rigIds: readonly string[] };

/** Blocks of one rig, those of one project in a row together. */
function turnsOf(blocks: readonly RigBlock[]): RigBlock[][] {
  const turns: RigBlock[][] = [];
  for (const b of blocks) {
    const last = turns.at(-1);
    if (last?.[0]?.projectId === b.projectId) last.push(b);
    else turns.push([b]);
  }
  return turns;
}

/** Blocks in what is left of a night: what each counts in proportion to its time. */
const countsAfter = (blocks: readonly PlannedBlock[], fromMs: UtcMs): number =>
  blocks.reduce((sum, b) => {
    const left = Math.max(0, b.endMs - Math.max(b.startMs, fromMs)) / Math.max(1, b.endMs - b.startMs);
    return sum + left * b.countsMin;
  }, 0);

/** The kit stands and no stretch is sure enough: until when to wait, what meanwhile, and from when on it is not worth it. Null where nothing more is to be expected. */
function waiting(left: WeighedNight["hours"], nowMs: UtcMs): RestOfNight | null {
  const worth = left.map((h) => h.goOdds * h.dryMin);
  const after = worth.map((_, i) => worth.slice(i).reduce((a, b) => a + b, 0));
  const expectedMin = after[0] ?? 0;
  if (expectedMin < LEAST_MIN) return null;
  const next = left.find((h) => h.atMs > nowMs && h.goOdds > 0) ?? left[0]!;
  const lastIndex = after.findLastIndex((sum) => sum >= LEAST_MIN);
  const byMs = utcMs(Math.max(nowMs, left[lastIndex]!.atMs + HOUR_MS));
  const waitMin = (next.atMs - nowMs) / MINUTE_MS;
  return {
    steps: [
      { kind: "wait", untilMs: utcMs(Math.max(nowMs, next.atMs)), odds: next.goOdds },
      ...(waitMin >= DARKS_MIN ? [{ kind: "darks" as const, minutes: waitMin }] : []),
      { kind: "packUp", byMs, why: "unlikely" },
    ],
    expectedMin,
  };
}

/**
 * What to do with the rest of a night that is under way, as the sky and the plan stand now: go on, change the target, wait, take darks
 * while waiting, pack up by when. `before` is what the plan had before it was made anew. Null outside the night.
 */
export function restOfNight(at: {
  readonly nowMs: UtcMs;
  readonly nightEndMs: UtcMs;
  readonly weighed: Pick<WeighedNight, "hours" | "window" | "rainDeadlineMs">;
  readonly blocks: readonly RigBlock[];
  readonly before: readonly RigBlock[];
  /** Whether anything is left to do at all. */
  readonly hasWork: boolean;
  /** The kit stands outside: nobody is sent in as long as waiting may bring something. */
  readonly isBegun?: boolean;
}): RestOfNight | null {
  const { nowMs, weighed, blocks } = at;
  if (nowMs >= at.nightEndMs) return null;
  const { window, rainDeadlineMs } = weighed;
  const left = weighed.hours.filter((h) => h.atMs + HOUR_MS > nowMs);
  const expectedMin = left.reduce((sum, h) => {
    const inWindow = window
      ? Math.max(0, Math.min(h.atMs + HOUR_MS, window.endMs) - Math.max(h.atMs, window.startMs)) / HOUR_MS
      : 0;
    return sum + h.goOdds * Math.min(h.dryMin, inWindow * 60);
  }, 0);
  const home = (why: Extract<RestStep, { kind: "packUp" }>["why"]): RestOfNight => ({
    steps: [{ kind: "packUp", byMs: utcMs(Math.min(nowMs, rainDeadlineMs ?? nowMs)), why }],
    expectedMin,
  });
  if (!at.hasWork) return home("allDone");
  if (rainDeadlineMs !== null && rainDeadlineMs <= nowMs) return home("rain");
  if (!window || window.endMs <= nowMs || expectedMin < LEAST_MIN)
    return (at.isBegun ? waiting(left, nowMs) : null) ?? home("noHours");
  const steps: RestStep[] = [];
  const waitMin = (window.startMs - nowMs) / MINUTE_MS;
  if (waitMin >= SOON_MIN) {
    const hour = left.find((h) => h.atMs + HOUR_MS > window.startMs);
    steps.push({ kind: "wait", untilMs: window.startMs, odds: hour?.goOdds ?? 0 });
    if (waitMin >= DARKS_MIN) steps.push({ kind: "darks", minutes: waitMin });
  }
  const fromMs = utcMs(Math.max(nowMs, window.startMs));
  const ahead = (some: readonly RigBlock[], rig: string) =>
    some.filter((x) => x.rigIds.join("+") === rig && x.endMs > fromMs);
  const rigs = [...new Set(blocks.map((x) => x.rigIds.join("+")))];
  const turns = rigs.flatMap((rig) => {
    const [mine, before] = [ahead(blocks, rig), ahead(at.before, rig)];
    const was = before[0];
    const isOther = was !== undefined && was.startMs <= fromMs && was.projectId !== mine[0]?.projectId;
    const gainMin = countsAfter(mine, fromMs) - countsAfter(before, fromMs);
    return turnsOf(mine).map((turn, i): RestStep & { readonly kind: "shoot" } => ({
      kind: "shoot",
      rigId: turn[0]!.rigIds[0]!,
      projectId: turn[0]!.projectId,
      channels: [...new Set(turn.map(channelsText))].join(", then "),
      fromMs: utcMs(Math.max(fromMs, turn[0]!.startMs)),
      untilMs: turn.at(-1)!.endMs,
      insteadOf: i === 0 && isOther ? { projectId: was.projectId, gainMin } : null,
    }));
  });
  steps.push(...turns.sort((x, y) => x.fromMs - y.fromMs));
  const isRain = rainDeadlineMs !== null && rainDeadlineMs <= window.endMs + HOUR_MS;
  const goesOn = left.some((h) => h.atMs >= window.endMs && h.dryMin > 0);
  const why = isRain ? "rain" : goesOn ? "unlikely" : "over";
  steps.push({ kind: "packUp", byMs: isRain ? rainDeadlineMs : window.endMs, why });
  return { steps, expectedMin };
}
