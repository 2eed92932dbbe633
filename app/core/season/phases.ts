import { isNarrow } from "~/core/exposure";
import type { NightDate } from "~/core/time";
import { clearAfter } from "~/core/weather";
import { isWanted } from "./share";
import type { SeasonPlan } from "./season-plan";

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
 * Chance that within some nights at least `run` of them in a row are clear: each by its own chance, in which what is known of the night
 * before is already, a clear night making the next one likelier (`clearAfter`). Exact, by a walk over the length of the run so far.
 */
export function chanceOfRun(chances: readonly number[], run: number, persistence: number): number {
  // By state: how many clear nights in a row so far.
  let states = new Map<number, number>([[0, 1]]);
  let done = 0;
  chances.forEach((p, n) => {
    const next = new Map<number, number>();
    for (const [state, weight] of states) {
      const after = n === 0 ? null : clearAfter(chances[n - 1]!, p, persistence);
      const clear = after === null ? p : state > 0 ? after.afterClear : after.afterCloud;
      if (state + 1 >= run) done += weight * clear;
      else next.set(state + 1, (next.get(state + 1) ?? 0) + weight * clear);
      next.set(0, (next.get(0) ?? 0) + weight * (1 - clear));
    }
    states = next;
  });
  return done;
}
