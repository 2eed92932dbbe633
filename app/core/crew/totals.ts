import type { Channel } from "~/core/exposure";
import type { ContributionData } from "~/core/ledger";

/** What one member has given to a project in one channel. */
export interface MemberTotal {
  readonly memberId: string;
  readonly channel: Channel;
  readonly subs: number;
  readonly keptMin: number;
  readonly worthMin: number;
}

/** Kept minutes and their worth by member and channel. Minutes of unknown worth count as they are. */
export function memberTotals(contributions: readonly ContributionData[]): MemberTotal[] {
  const totals = new Map<string, MemberTotal>();
  for (const c of contributions) {
    const key = `${c.memberId}|${c.channel}`;
    const before = totals.get(key) ?? { memberId: c.memberId, channel: c.channel, subs: 0, keptMin: 0, worthMin: 0 };
    const keptMin = (c.kept * c.exposureSec) / 60;
    totals.set(key, {
      ...before,
      subs: before.subs + c.kept,
      keptMin: before.keptMin + keptMin,
      worthMin: before.worthMin + keptMin * (c.worthRate ?? 1),
    });
  }
  return [...totals.values()].sort(
    (a, b) => a.memberId.localeCompare(b.memberId) || a.channel.localeCompare(b.channel),
  );
}
