import { runSheet, targetNight, type PlaceNight, type RunSheet, type WorkItem } from "~/core/night";
import { panelName, type Panel } from "~/core/framing";
import { efficiencyOf, type Channel, type Overheads } from "~/core/exposure";
import { nightEvents, nextTransitMs, sunPassesMs } from "~/core/sky";
import { MINUTE_MS, utcMs, type UtcInterval } from "~/core/time";
import { dealPanels } from "./panels";
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
    const needs = project.needs.filter((n) => n.channel === block.channel && n.subSec === block.subSec);
    const rate = block.exposureMin > 0 ? block.countsMin / block.exposureMin : 1;
    const clockMin = (span.endMs - span.startMs) / MINUTE_MS;
    // What is done before the first sub, between panels and at the meridian is no exposure, nor is half a sub a panel.
    const moves = project.school === "allPanelsEveryNight" ? needs.length : 1;
    const { panelChangeSec, filterChangeSec, focusMin, flipMin } = at.overheads;
    const leadMin =
      (moves * (panelChangeSec + block.subSec / 2) + filterChangeSec) / 60 + focusMin + (at.flips ? flipMin : 0);
    const exposureMin = Math.max(0, clockMin - leadMin) * efficiencyOf(block.subSec, at.overheads);
    const windowsOf = (panel: string) => {
      const drawn = project.panels.find((p) => panelName(p.number) === panel);
      return drawn ? targetNight(project.night, drawn.centre, block.channel).windows : [];
    };
    const setsMs = (panel: string) => Math.max(0, ...windowsOf(panel).map((w) => w.endMs));
    return dealPanels(needs, left, exposureMin, rate, project.school, setsMs).flatMap(
      ({ panel, exposureMin: minutes }) => {
        const need = needs.find((n) => n.panel === panel)!;
        const drawn = project.panels.find((p) => panelName(p.number) === panel);
        if (!drawn) return [];
        left.set(need, Math.max(0, (left.get(need) ?? need.remainingMin) - minutes * rate));
        const target = targetNight(project.night, drawn.centre, block.channel);
        return [
          {
            projectId: project.id,
            panel,
            channel: block.channel,
            filterName: project.filterName(block.channel),
            subSec: block.subSec,
            exposureMin: minutes,
            windows: clipped(target.windows, span),
            transitMs: nextTransitMs(sky, target.ofDate),
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
