import { isNarrow } from "~/core/exposure";
import type { NightDate } from "~/core/time";
import { isWanted } from "./share";
import type { SeasonPlan } from "./plan";

/** A run of nights on which a rig goes mostly for narrow or for broad bands. */
export interface Phase {
  readonly kind: "narrow" | "broad";
  readonly from: NightDate;
  readonly to: NightDate;
}

const SHORT_NIGHTS = 2; // a night or two in between is no phase

/** The phases of a rig's season, short ones joined with what is round them; empty where all of it is of one kind. */
export function phasesOf(plan: SeasonPlan, rigId: string): Phase[] {
  const nights = plan.evenings.flatMap((e) => {
    if (!e.rigIds.includes(rigId)) return [];
    const wanted = e.blocks.filter((b) => isWanted(plan, b.projectId, e.night));
    if (wanted.length === 0) return [];
    const narrow = wanted.reduce((sum, b) => sum + (isNarrow(b.channel) ? 1 : -1) * (b.endMs - b.startMs), 0);
    return [{ night: e.night, kind: narrow >= 0 ? ("narrow" as const) : ("broad" as const) }];
  });
  const phases: { kind: Phase["kind"]; from: NightDate; to: NightDate; nights: number }[] = [];
  const add = (kind: Phase["kind"], from: NightDate, to: NightDate, count: number) => {
    const last = phases.at(-1);
    if (last?.kind === kind) {
      last.to = to;
      last.nights += count;
    } else phases.push({ kind, from, to, nights: count });
  };
  for (const n of nights) add(n.kind, n.night, n.night, 1);
  const long = phases.filter((p, i) => p.nights > SHORT_NIGHTS || i === 0);
  phases.length = 0;
  for (const p of long) add(p.kind, p.from, p.to, p.nights);
  return phases.length < 2 ? [] : phases.map(({ kind, from, to }) => ({ kind, from, to }));
}

/**
 * Chance that within some nights at least `run` of them in a row are clear: each by its own chance, a clear night making the next one
 * likelier (Gabriel & Neumann 1962, QJRMS 88, 90). Exact, by a walk over the length of the run so far.
 */
export function chanceOfRun(
  chances: readonly number[],
  run: number,
  persistence: number,
  wasClear: boolean | null,
): number {
  // By state: how many clear nights in a row so far; −1 = nothing known of the night before.
  let states = new Map<number, number>([[wasClear === null ? -1 : wasClear ? 1 : 0, 1]]);
  let done = 0;
  chances.forEach((p, n) => {
    const next = new Map<number, number>();
    for (const [state, weight] of states) {
      const clear = state === -1 ? p : state > 0 ? p + persistence * (1 - p) : p * (1 - persistence);
      // A clear night before the first does not count for the run: it is over.
      const before = n === 0 ? 0 : Math.max(0, state);
      if (before + 1 >= run) done += weight * clear;
      else next.set(before + 1, (next.get(before + 1) ?? 0) + weight * clear);
      next.set(0, (next.get(0) ?? 0) + weight * (1 - clear));
    }
    states = next;
  });
  return done;
}
