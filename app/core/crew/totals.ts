import type { Channel } from "~/core/exposure";
import type { ContributionData } from "~/core/ledger";

/** What one member has given to a project in one channel. */
export interface MemberTotal {
  readonly memberId: string;
  readonly channel: Channel;
  readonly subs: number;
  readonly keptMin: number;
  /** What of it counts towards the goals, where that was worked out (`countedEntries`); else what was kept. */
  readonly countedMin: number;
}

/** Kept minutes and what they count, by member and channel. */
export function memberTotals(
  contributions: readonly (ContributionData & { readonly countedMin?: number })[],
): MemberTotal[] {
  const totals = new Map<string, MemberTotal>();
  for (const c of contributions) {
    const key = `${c.memberId}|${c.channel}`;
    const before = totals.get(key) ?? { memberId: c.memberId, channel: c.channel, subs: 0, keptMin: 0, countedMin: 0 };
    const keptMin = (c.kept * c.exposureSec) / 60;
    totals.set(key, {
      ...before,
      subs: before.subs + c.kept,
      keptMin: before.keptMin + keptMin,
      countedMin: before.countedMin + (c.countedMin ?? keptMin),
    });
  }
  return [...totals.values()].sort(
    (a, b) => a.memberId.localeCompare(b.memberId) || a.channel.localeCompare(b.channel),
  );
}
