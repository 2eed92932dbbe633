import { panelName } from "~/core/framing";
import type { RunSheet } from "~/core/night";
import { filterOfGoal, nightSheet, panelLabel, type SheetProject } from "~/core/plan";
import { type Evening } from "~/core/season";
import type { NightDate, UtcInterval, UtcMs } from "~/core/time";
import { turnTo } from "~/core/units";
import type { Entity, Library } from "~/desk/records/library";
import type { Place } from "~/core/night";
import { moonOf } from "~/desk/sky/choice";
import { nightOver } from "~/desk/sky/nights";
import { ownContextsOf, type ProjectContext } from "~/desk/projects/project";
import { ownUnder } from "~/desk/projects/weights";

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

/** What was left of a project when a night began: what it has now, and what was written down of that night since. */
function needsAtDusk(c: ProjectContext, night: NightDate): ProjectContext["needs"] {
  const tonight = c.counted.filter((e) => e.night === night && e.memberId === c.part.data.memberId);
  if (tonight.length === 0) return c.needs;
  return c.needs.map((n) => {
    const taken = tonight.filter((e) => e.panel === n.panel && e.channel === n.channel);
    const minutes = taken.reduce((sum, e) => sum + e.countedMin, 0) / c.hourIs(n.channel);
    return { ...n, remainingMin: Math.min(n.goalMin, n.remainingMin + minutes) };
  });
}

/** What is left of a project after lines of a sheet that are not written down yet. */
const needsAfter = (c: ProjectContext, lines: RunSheet["lines"]): ProjectContext["needs"] =>
  c.needs.map((n) => {
    const minutes = lines.reduce((sum, l) => {
      const isIt =
        l.kind === "block" &&
        l.projectId === c.id &&
        l.panel === n.panel &&
        l.channel === n.channel &&
        l.subSec === n.subSec;
      return isIt ? sum + (l.subs * l.subSec) / 60 : sum;
    }, 0);
    return minutes > 0 ? { ...n, remainingMin: Math.max(0, n.remainingMin - minutes) } : n;
  });

/** The lines of a sheet up to an instant. */
const linesUntil = ({ lines }: RunSheet, untilMs: UtcMs): RunSheet["lines"] =>
  lines.flatMap((l): RunSheet["lines"] => {
    if (l.kind === "packUp" || l.startMs >= untilMs) return [];
    if (l.endMs <= untilMs) return [l];
    if (l.kind !== "block") return [{ ...l, endMs: untilMs }];
    const subs = Math.floor(((untilMs - l.startMs) / (l.endMs - l.startMs)) * l.subs);
    return subs > 0 ? [{ ...l, subs, endMs: untilMs }] : [];
  });

/** A sheet up to an instant, and another one from there on: what has been is not rewritten. */
function spliced(before: RunSheet, after: RunSheet, fromMs: UtcMs): RunSheet {
  const past = linesUntil(before, fromMs);
  const lines = [...past, ...after.lines];
  const exposureMin = lines.reduce((sum, l) => sum + (l.kind === "block" ? (l.subs * l.subSec) / 60 : 0), 0);
  return { lines, exposureMin, leftOver: after.leftOver };
}

/** When the first rig of a night is set up, by its sheet; null where nothing is planned. */
export function setUpFrom(library: Library, night: NightDate, evenings: readonly Evening[]): UtcMs | null {
  const contexts = ownContextsOf(library);
  const starts = evenings.flatMap((evening) => {
    const place = library.places.find((p) => p.id === evening.placeId);
    if (!place || evening.blocks.length === 0) return [];
    const made = sheetOf(library, evening, { place, night, contexts, within: null });
    return made?.sheet.lines[0]?.startMs ?? [];
  });
  return starts.length > 0 ? (Math.min(...starts) as UtcMs) : null;
}

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
    /** A night that has begun: the kit stands, and since when it is planned anew; null = it goes on as planned. */
    readonly begun?: {
      readonly fromMs: UtcMs | null;
      /** Until when what it had counts as taken; null = what is written down counts. */
      readonly takenUntilMs: UtcMs | null;
      readonly before: Evening | null;
    } | null;
  },
): EveningSheet | null {
  const contextsIn = (e: Evening) =>
    [...new Set(e.blocks.map((b) => b.projectId))].flatMap((id) => at.contexts.find((c) => c.id === id) ?? []);
  const mine = [...new Set([...(at.begun?.before ? contextsIn(at.begun.before) : []), ...contextsIn(evening)])];
  const [first] = mine;
  if (!first) return null;
  const sheetProject = (c: ProjectContext, needs: ProjectContext["needs"]): SheetProject => ({
    id: c.id,
    night: nightOver(library.desk, at.place.data, at.night, c.moon),
    panels: c.panels,
    needs,
    own: ownUnder(c, at.place.data),
    school: c.project.data.school,
    ...(c.project.data.rules?.roundSubs === undefined ? {} : { roundSubs: c.project.data.rules.roundSubs }),
    filterName: (channel) => {
      const goal = c.goal.data.channels.find((g) => g.channel === channel);
      return (goal ? filterOfGoal(goal, c.filters) : null)?.data.name ?? channel;
    },
  });
  const rig = first.rig.data;
  const common = {
    night: nightOver(library.desk, at.place.data, at.night, moonOf(library)),
    overheads: rig.overheads,
    flips: rig.flipsAtMeridian,
    changesFilters: rig.filterIds.length > 1,
    standsBeforeDark: library.settings?.data.standsBeforeDark ?? true,
    within: at.within,
    rainMs: at.rainMs ?? null,
  };
  const { begun } = at;
  const known = begun?.before ?? evening;
  const asItWas = () =>
    nightSheet({
      ...common,
      evening: known,
      projects: contextsIn(known).map((c) => sheetProject(c, needsAtDusk(c, at.night))),
    });
  const untilMs = begun?.takenUntilMs ?? null;
  const asItIs = (isSetUp: boolean) => {
    const taken = untilMs === null ? [] : linesUntil(asItWas(), untilMs);
    return nightSheet({
      ...common,
      evening,
      projects: mine.map((c) => sheetProject(c, needsAfter(c, taken))),
      isSetUp,
    });
  };
  const bare = !begun
    ? asItIs(false)
    : begun.fromMs === null
      ? asItWas()
      : spliced(asItWas(), asItIs(true), begun.fromMs);
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
