import type { NightDate } from "~/core/time";
import type { SeasonPlan } from "./season-plan";

/** A night that a plan has no use for, though its owner is free. */
export interface IdleNight {
  readonly night: NightDate;
  readonly chance: number;
}

/** The nights that a plan leaves idle: nobody's rig has anything to do, and nothing forbids it. */
export function idleNights(plan: SeasonPlan): IdleNight[] {
  const nights = new Map<NightDate, IdleNight | null>();
  for (const { night, chance, blocks, closed } of plan.evenings) {
    const isTaken = blocks.length > 0 || closed === "busy" || closed === "forbidden";
    const known = nights.get(night);
    if (isTaken || known === null) nights.set(night, null);
    else nights.set(night, { night, chance: Math.max(chance, known?.chance ?? 0) });
  }
  return [...nights.values()].flatMap((n) => n ?? []);
}

/** What idle nights would give another target: how many of them are long enough for it, and the hours of those that will be clear. */
export function idleFit(
  idle: readonly IdleNight[],
  usableMin: Readonly<Record<NightDate, number>>,
  leastMin: number,
): { readonly nights: number; readonly hours: number; readonly first: NightDate | null } {
  const fit = idle.filter((n) => (usableMin[n.night] ?? 0) >= leastMin);
  return {
    nights: fit.length,
    hours: fit.reduce((sum, n) => sum + (n.chance * usableMin[n.night]!) / 60, 0),
    first: fit[0]?.night ?? null,
  };
}
