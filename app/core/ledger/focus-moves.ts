import type { Channel } from "~/core/exposure";
import { median } from "~/core/numeric";
import { HOUR_MS } from "~/core/time";
import type { ContributionData } from "./contribution";

/** A focuser's move from one filter to another, as a rig's subs show it. */
export interface FocusMove {
  /** Steps, outward as the focuser counts. */
  readonly steps: number;
  /** Changes between the two that were measured, either way. */
  readonly changes: number;
  /** How far the changes lie from each other: the median distance from their middle, steps; null where there is one alone. */
  readonly spread: number | null;
}

/** How the focus moves when a filter is changed for another one: as measured, or as the glass says. */
export type FocusHint =
  | ({ readonly by: "subs"; readonly from: Channel } & FocusMove)
  | { readonly by: "glass"; readonly from: Channel; readonly mm: number };

/** Longer between two subs, and the cold moved the focus more than the filter. */
const WITHIN_MS = 2 * HOUR_MS;

const pairOf = (a: Channel, b: Channel) => `${a} ${b}`;

/** Moves of the focuser over each change of filter, by the two channels in order. */
function changesOf(subs: readonly ContributionData[]): ReadonlyMap<string, readonly number[]> {
  const at = subs
    .flatMap((s) =>
      s.startMs === null || s.focusSteps === undefined ? [] : [{ ...s, at: s.startMs, steps: s.focusSteps }],
    )
    .sort((a, b) => a.at - b.at);
  const changes = new Map<string, number[]>();
  at.forEach((sub, i) => {
    const before = at[i - 1];
    if (!before || before.channel === sub.channel || before.night !== sub.night) return;
    if (sub.at - before.at - before.exposureSec * 1000 > WITHIN_MS) return;
    const pair = pairOf(before.channel, sub.channel);
    const known = changes.get(pair);
    if (known) known.push(sub.steps - before.steps);
    else changes.set(pair, [sub.steps - before.steps]);
  });
  return changes;
}

/**
 * How a rig's focuser moves from one filter to another, from where it stood in the subs on either side of a change. What the cold
 * moves in one direction falls out where both directions were measured: half the difference of their medians. Null where the two
 * never followed each other.
 */
export function focusMoves(subs: readonly ContributionData[]): (from: Channel, to: Channel) => FocusMove | null {
  const changes = changesOf(subs);
  return (from, to) => {
    const there = changes.get(pairOf(from, to)) ?? [];
    const back = changes.get(pairOf(to, from)) ?? [];
    const moves = [...there, ...back.map((s) => -s)];
    if (moves.length === 0) return null;
    const steps = there.length > 0 && back.length > 0 ? (median(there) - median(back)) / 2 : median(moves);
    const spread = moves.length > 1 ? median(moves.map((m) => Math.abs(m - steps))) : null;
    return { steps: Math.round(steps), changes: moves.length, spread: spread === null ? null : Math.round(spread) };
  };
}
