import { runSheet, targetNight, type PlaceNight, type RunSheet, type WorkItem } from "~/core/night";
import { panelName, type Panel } from "~/core/framing";
import type { Channel, Overheads } from "~/core/exposure";
import { nightEvents, nextTransitMs, sunPassesMs } from "~/core/sky";
import { utcMs, type UtcInterval } from "~/core/time";
import { visitsOf } from "./visits";
import type { Need, ProjectData } from "./project";
import type { Evening } from "./season";

const STARS_SUN_DEG = -8; // the pole star shows in a camera; common practice, no source

/** What a sheet needs to know of a project that takes part in an evening. */
export interface SheetProject {
  readonly id: string;
  readonly night: PlaceNight;
  readonly panels: readonly Panel[];
  readonly needs: readonly Need[];
  readonly school: ProjectData["school"];
  /** Subs of a panel in a row, round after round; absent = once each. */
  readonly roundSubs?: number;
  readonly filterName: (channel: Channel) => string;
}

/**
 * The run sheet of an evening: what the plan has for one rig on one night, laid out by the clock: stretches in their order, the
 * panels of each dealt by its project's school. `within` is the part of the night that is clear; null = all of it.
 */
export function nightSheet(at: {
  readonly evening: Evening;
  readonly projects: readonly SheetProject[];
  readonly night: PlaceNight;
  readonly overheads: Overheads;
  readonly flips: boolean;
  readonly standsBeforeDark: boolean;
  readonly within: UtcInterval | null;
}): RunSheet {
  const { sky } = at.night;
  const left = new Map<Need, number>();
  const items = at.evening.blocks.flatMap((block): WorkItem[] => {
    const project = at.projects.find((p) => p.id === block.projectId);
    const [span] = clipped([block], at.within);
    if (!project || !span) return [];
    const rate = block.exposureMin > 0 ? block.countsMin / block.exposureMin : 1;
    const targetOf = (panel: string, channel: Channel) => {
      const drawn = project.panels.find((p) => panelName(p.number) === panel);
      return drawn ? targetNight(project.night, drawn.centre, channel) : null;
    };
    return visitsOf(block, {
      project,
      left,
      rate,
      span,
      overheads: at.overheads,
      flips: at.flips,
      setsMs: (panel) => Math.max(0, ...(targetOf(panel, block.channel)?.windows ?? []).map((w) => w.endMs)),
    }).flatMap(
      // prettier-ignore
      ({ panel, channel, subSec, exposureMin, turn }) => {
        const target = targetOf(panel, channel);
        if (!target) return [];
        return [
          {
            projectId: project.id,
            panel,
            channel,
            filterName: project.filterName(channel),
            subSec,
            exposureMin,
            windows: clipped(target.windows, span),
            transitMs: nextTransitMs(sky, target.ofDate),
            ...(turn === undefined ? {} : { turn }),
          },
        ];
      },
    );
  });
  const { horizon } = nightEvents(sky);
  return runSheet(items, at.overheads, {
    flips: at.flips,
    standsBeforeDark: at.standsBeforeDark,
    sunsetMs: horizon.kind === "passes" ? horizon.downMs : null,
    starsMs: sunPassesMs(sky, STARS_SUN_DEG)?.downMs ?? null,
  });
}

/** The part of some stretches that lies within another. */
function clipped(windows: readonly UtcInterval[], within: UtcInterval | null): readonly UtcInterval[] {
  if (!within) return windows;
  return windows.flatMap((w) => {
    const [startMs, endMs] = [Math.max(w.startMs, within.startMs), Math.min(w.endMs, within.endMs)];
    return endMs > startMs ? [{ startMs: utcMs(startMs), endMs: utcMs(endMs) }] : [];
  });
}
