import { depthRate, type KitUnderSky } from "~/core/exposure";
import { frameToSky, isInPanel, skyToFrame, type MosaicLayout, type Panel } from "~/core/framing";
import type { ContributionData } from "./contribution";

/** A frame as it was shot: its layout with the optics it was shot with, and its panels. */
export interface ShotFrame {
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
}

const GRID = 48; // points a side of a panel: an edge is known to a hundredth of it

/** The share of one frame's area that another one covers, 0 to 1. */
export function coveredShare(reference: ShotFrame, other: ShotFrame): number {
  const { layout } = reference;
  const [width, height] = [layout.planeWidthArcmin, layout.planeHeightArcmin];
  let [inside, all] = [0, 0];
  for (const panel of reference.panels)
    for (let i = 0; i < GRID; i++)
      for (let j = 0; j < GRID; j++) {
        const at = frameToSky(layout, panel.xArcmin + ((i + 0.5) / GRID - 0.5) * width, panel.yArcmin + ((j + 0.5) / GRID - 0.5) * height); // prettier-ignore
        const there = skyToFrame(other.layout, at);
        all++;
        if (there && other.panels.some((p) => isInPanel(other.layout, p, there))) inside++;
      }
  return all === 0 ? 0 : inside / all;
}

/** What one member gave, as hours at the reference. */
export interface MemberWeight {
  readonly memberId: string;
  readonly keptHours: number;
  /** What an hour of theirs is worth in hours at the reference, sky and rig alone: the mean over what they kept; null = not known. */
  readonly hourIs: number | null;
  /** Of the reference frame. */
  readonly covers: number | null;
  /** Hours at the reference, over all of its field, Moon and direction taken in. */
  readonly equivalentHours: number;
  /** Of the weight of the whole stack. */
  readonly share: number;
}

/** Where and with what something was taken; null = gone, or no filter of it records the channel. */
export interface WeightContext {
  readonly reference: KitUnderSky;
  readonly kitOf: (entry: ContributionData) => KitUnderSky | null;
  /** Share of the reference frame that the frame of an entry covers; null = not known. */
  readonly coverOf: (entry: ContributionData) => number | null;
}

/**
 * The hours of each member as hours at the reference: by sky and rig (depth rate, MATHS 4.4, 4.7), by what their light was worth in its
 * direction and under its Moon, and by how much of the field it covers. Weighed so, hours add up to the SNR² of the stack (MATHS 4.5).
 * What is not known of an entry counts as at the reference.
 */
export function memberWeights(entries: readonly ContributionData[], at: WeightContext): MemberWeight[] {
  const rates = new Map<string, number | null>();
  const hourIs = (e: ContributionData): number | null => {
    const key = `${e.rigId} ${e.placeId} ${e.channel}`;
    if (!rates.has(key)) {
      const kit = at.kitOf(e);
      const [mine, theirs] = [depthRate(e.channel, at.reference), kit ? depthRate(e.channel, kit) : null];
      rates.set(key, mine && theirs ? theirs.rate / mine.rate : null);
    }
    return rates.get(key) ?? null;
  };
  const members = [...new Set(entries.map((e) => e.memberId))].map((memberId) => {
    const mine = entries.filter((e) => e.memberId === memberId && e.kept > 0);
    const hours = (e: ContributionData) => (e.kept * e.exposureSec) / 3600;
    const sum = (of: (e: ContributionData) => number) => mine.reduce((s, e) => s + hours(e) * of(e), 0);
    const keptHours = sum(() => 1);
    const mean = (of: (e: ContributionData) => number | null) => {
      const known = mine.filter((e) => of(e) !== null);
      const all = known.reduce((s, e) => s + hours(e), 0);
      return all > 0 ? known.reduce((s, e) => s + hours(e) * of(e)!, 0) / all : null;
    };
    return {
      memberId,
      keptHours,
      hourIs: mean(hourIs),
      covers: mean(at.coverOf),
      equivalentHours: sum((e) => (hourIs(e) ?? 1) * (e.worthRate ?? 1) * (at.coverOf(e) ?? 1)),
    };
  });
  const all = members.reduce((s, m) => s + m.equivalentHours, 0);
  return members
    .filter((m) => m.keptHours > 0)
    .map((m) => ({ ...m, share: all > 0 ? m.equivalentHours / all : 0 }))
    .sort((a, b) => b.equivalentHours - a.equivalentHours);
}
