import { panelName } from "~/core/framing";
import type { RunSheet } from "~/core/night";
import { filterOfGoal, nightSheet, panelLabel, type Evening, type SheetProject } from "~/core/plan";
import type { NightDate, UtcInterval, UtcMs } from "~/core/time";
import { turnTo } from "~/core/units";
import type { Entity, Library } from "./library";
import type { Place } from "~/core/night";
import { moonOf } from "./choice";
import { nightOver } from "./nights";
import type { ProjectContext } from "./project";

/** An evening of a rig as a sheet. */
export interface EveningSheet {
  readonly evening: Evening;
  readonly rigId: string;
  readonly sheet: RunSheet;
  /** Those that take part in it, in order. */
  readonly contexts: readonly ProjectContext[];
}

const TURN_DEG = 3; // less is the convergence of meridians over a mosaic

/** What a project's panel is called on a sheet: "P3 the arch". */
const labelOf = (c: ProjectContext | undefined, panel: string): string =>
  c ? panelLabel(c.frame.data, Number(panel.slice(1))) : panel;

/** The sheet of an evening: the same stretches, by the clock, panel by panel. */
export function sheetOf(
  library: Library,
  evening: Evening,
  at: {
    readonly place: Entity<Place>;
    readonly night: NightDate;
    readonly contexts: readonly ProjectContext[];
    readonly within: UtcInterval | null;
    /** When rain is near; absent or null = none is in sight. */
    readonly rainMs?: UtcMs | null;
  },
): EveningSheet | null {
  const ids = [...new Set(evening.blocks.map((b) => b.projectId))];
  const mine = ids.flatMap((id) => at.contexts.find((c) => c.id === id) ?? []);
  const [first] = mine;
  if (!first) return null;
  const projects = mine.map((c): SheetProject => ({
    id: c.id,
    night: nightOver(at.place.data, at.night, c.moon),
    panels: c.panels,
    needs: c.needs,
    school: c.project.data.school,
    ...(c.project.data.rules?.roundSubs === undefined ? {} : { roundSubs: c.project.data.rules.roundSubs }),
    filterName: (channel) => {
      const goal = c.goal.data.channels.find((g) => g.channel === channel);
      return (goal ? filterOfGoal(goal, c.filters) : null)?.data.name ?? channel;
    },
  }));
  const rig = first.rig.data;
  const bare = nightSheet({
    evening,
    projects,
    night: nightOver(at.place.data, at.night, moonOf(library)),
    overheads: rig.overheads,
    flips: rig.flipsAtMeridian,
    changesFilters: rig.filterIds.length > 1,
    standsBeforeDark: library.settings?.data.standsBeforeDark ?? true,
    within: at.within,
    rainMs: at.rainMs ?? null,
  });
  const contextFor = (id: string | undefined) => mine.find((c) => c.id === id);
  const several = mine.length > 1;
  let last: number | null = null;
  const lines = bare.lines.map((l) => {
    const c = contextFor(l.projectId);
    if (l.kind === "block") return { ...l, panel: labelOf(c, l.panel) };
    if (!c || l.detail === "") return l;
    const detail = `${several ? `${c.project.data.name}, ` : ""}${labelOf(c, l.detail)}`;
    // Two targets of an evening seldom stand at the same camera angle: then somebody, or the rotator, has to turn it.
    const angle = c.panels.find((p) => panelName(p.number) === l.detail)?.positionAngleDeg ?? null;
    const turns = l.kind === "centre" && angle !== null && last !== null && Math.abs(turnTo(angle, last)) > TURN_DEG;
    if (angle !== null) last = angle;
    return { ...l, detail: turns ? `${detail}, the camera turned to ${Math.round(angle)}° (its own flats)` : detail };
  });
  return { evening, rigId: first.rig.id, sheet: { ...bare, lines }, contexts: mine };
}
