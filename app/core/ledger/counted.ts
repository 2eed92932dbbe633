import type { Channel } from "~/core/exposure";
import { frameToSky, isInPanel, panelName, skyToFrame, type MosaicLayout, type Panel } from "~/core/framing";
import type { ContributionData } from "./contribution";

/** A frame as it was shot: its layout with the optics it was shot with, and its panels. */
export interface ShotFrame {
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
}

const GRID = 48; // points a side of a panel: an edge is known to a hundredth of it

/** The share of one panel's area that panels of another frame cover, 0 to 1. */
function panelShare(layout: MosaicLayout, panel: Panel, other: ShotFrame): number {
  let inside = 0;
  for (let i = 0; i < GRID; i++)
    for (let j = 0; j < GRID; j++) {
      const x = panel.xArcmin + ((i + 0.5) / GRID - 0.5) * layout.planeWidthArcmin;
      const y = panel.yArcmin + ((j + 0.5) / GRID - 0.5) * layout.planeHeightArcmin;
      const there = skyToFrame(other.layout, frameToSky(layout, x, y));
      if (there && other.panels.some((p) => isInPanel(other.layout, p, there))) inside++;
    }
  return inside / GRID ** 2;
}

/** The share of one frame's panels, overlaps counted twice, that another frame covers, 0 to 1. */
export const coveredShare = ({ layout, panels }: ShotFrame, other: ShotFrame): number =>
  panels.length === 0 ? 0 : panels.reduce((sum, p) => sum + panelShare(layout, p, other), 0) / panels.length;

/** A panel, and the share of it that something fills. */
export interface FilledPanel {
  readonly panel: string;
  readonly share: number;
}

const LEAST_SHARE = 0.02; // a rim of a panel is no work on it

/** Which panels of a frame some panels of another one fill, the one filled most first; rims of less than 2 % are left out. */
export const filledPanels = ({ layout, panels }: ShotFrame, other: ShotFrame): FilledPanel[] =>
  panels
    .map((p) => ({ panel: panelName(p.number), share: panelShare(layout, p, other) }))
    .filter((f) => f.share >= LEAST_SHARE)
    .sort((a, b) => b.share - a.share || (a.panel < b.panel ? -1 : 1));

/**
 * An entry as it counts for one panel of a frame, under that panel's name. One whose field lies over several panels comes once for
 * each; its subs stand with the one it fills most, so that nothing is told twice.
 */
export interface CountedEntry extends ContributionData {
  /** Minutes at the reference, with the target at its best. */
  readonly countedMin: number;
}

/** What hours are counted by. */
export interface CountRules {
  /** Worth of a minute at the target's best at the reference, by channel, over that place's moonless zenith. */
  readonly bestRates: Readonly<Partial<Record<Channel, number>>>;
  /** Hours at the reference that an hour of an entry is, sky and rig alone; 1 with the reference's own kit, null = not known. */
  readonly hourIs: (entry: ContributionData) => number | null;
  /** The panels an entry fills; none = it is of another picture. */
  readonly panelsOf: (entry: ContributionData) => readonly FilledPanel[];
}

/**
 * What a kept minute of an entry counts: its worth in its direction and under its Moon, by what an hour of that sky and rig is at
 * the reference (depth rate, MATHS 4.4, 4.7), against the target at its best there. An entry whose worth nobody knows counts as at
 * that best; with the reference's own kit none counts more than that. Weighed so, minutes add up to the SNR² of the stack (MATHS 4.5).
 */
export function countAgainst({ bestRates, hourIs }: Pick<CountRules, "bestRates" | "hourIs">) {
  return (entry: ContributionData): number => {
    const best = bestRates[entry.channel] ?? 0;
    const is = hourIs(entry) ?? 1;
    if (entry.worthRate === null || !(best > 0)) return is;
    const counts = (entry.worthRate * is) / best;
    return is === 1 ? Math.min(1, counts) : counts;
  };
}

/** Entries as they count, panel by panel of a frame; those of another picture are left out. */
export function countedEntries(entries: readonly ContributionData[], rules: CountRules): CountedEntry[] {
  const countOf = countAgainst(rules);
  return entries.flatMap((entry): CountedEntry[] =>
    rules.panelsOf(entry).map(({ panel, share }, i) => {
      const countedMin = (entry.kept * entry.exposureSec * countOf(entry) * share) / 60;
      return i === 0 ? { ...entry, panel, countedMin } : { ...entry, panel, countedMin, taken: 0, kept: 0, reason: "" };
    }),
  );
}
