import type { RibbonNight } from "./ribbon";

/** The four named phases of the Moon. */
export type PhaseName = "new" | "firstQuarter" | "full" | "lastQuarter";

/**
 * Named phases among consecutive nights, by index: the darkest and the brightest night of a turn, and the nights on which
 * half the disc is lit, to the night. The first and last night of the list are never a turn.
 */
export function namedPhases(
  nights: readonly Pick<RibbonNight, "illuminatedFraction">[],
): ReadonlyMap<number, PhaseName> {
  const phases = new Map<number, PhaseName>();
  const lit = nights.map((n) => n.illuminatedFraction);
  for (let i = 1; i < lit.length; i++) {
    const [before, now, after] = [lit[i - 1]!, lit[i]!, lit[i + 1]];
    if (after !== undefined && now > before && now >= after) phases.set(i, "full");
    else if (after !== undefined && now < before && now <= after) phases.set(i, "new");
    else if (before < 0.5 && now >= 0.5) phases.set(nearest(before, now) === 0 ? i - 1 : i, "firstQuarter");
    else if (before > 0.5 && now <= 0.5) phases.set(nearest(before, now) === 0 ? i - 1 : i, "lastQuarter");
  }
  return phases;
}

/** Which of two is nearer to a half: 0 or 1. */
const nearest = (a: number, b: number): 0 | 1 => (Math.abs(a - 0.5) < Math.abs(b - 0.5) ? 0 : 1);
