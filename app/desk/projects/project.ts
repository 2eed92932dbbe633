import { refusePage } from "~/desk/page-fault";
import { type Channel, type Filter, type Rig } from "~/core/exposure";
import { opticsOf, panelName, type MosaicLayout, type Optics, type Panel } from "~/core/framing";
import {
  cellKey,
  countAgainst,
  countedByCell,
  countedEntries,
  isOfShortSet,
  loomOf,
  type ContributionData,
  type CountedEntry,
  type LoomCell,
} from "~/core/ledger";
import { bestRate, type MoonWishes, type Place } from "~/core/night";
import {
  filterOfGoal,
  isFollowed,
  layoutOf,
  moonOfProject,
  panelsOf,
  promises,
  remainingWork,
  type FrameData,
  type FrameStock,
  type GoalData,
  type Need,
  type OwnByChannel,
  type PanelGoal,
  type ProjectData,
} from "~/core/plan";
import { type HoursCount, hasLeft } from "~/core/season";
import type { Desk } from "~/desk/desk";
import { moonOf, tonightAt } from "~/desk/sky/choice";
import { withLearntChances } from "~/desk/sky/learnt";
import type { Entity, Library } from "~/desk/records/library";
import { shownPart, type ShownPart } from "~/desk/records/parts";
import { topic } from "~/desk/memo";
import { filtersOf, hourIsOf, hourWith, kitOf, panelsFilled, referenceOf, shotWith, type Reference } from "./reference";
import { broken, gapOf } from "./project-gap";
import { AS_KEPT, ownOf, wholePanels, type Kit } from "./weights";

/** A project with everything that screens need of it, looked up: by one's own part in it, else by the part it is shown by. */
export interface ProjectContext {
  /** The desk it was put together on. */
  readonly desk: Desk;
  readonly id: string;
  readonly project: Entity<ProjectData>;
  readonly part: ShownPart;
  /** The frame that is shot. */
  readonly frame: Entity<FrameData>;
  /** All frames drawn for the project, those that another one took the place of left out. */
  readonly frames: readonly Entity<FrameData>[];
  /** All that were ever drawn, and which the others are measured by. */
  readonly stock: FrameStock;
  readonly goal: Entity<GoalData>;
  readonly rig: Entity<Rig>;
  readonly place: Entity<Place>;
  /** How the Moon is taken: as the project says, else as its owner does. */
  readonly moon: MoonWishes;
  readonly filters: readonly Entity<Filter>[];
  readonly contributions: readonly Entity<ContributionData>[];
  /** Whose kit and sky its hours are measured by. */
  readonly reference: Reference;
  /** How its hours count: every hour kept as one, or by light. */
  readonly hours: HoursCount;
  /** Of the log, what counts for the panels of this frame, under their names: as the project's hours count. */
  readonly counted: readonly CountedEntry[];
  /** The same by light, as hours at the reference with the target at its best: the weights of the stack, whatever goals are counted in. */
  readonly byLight: readonly CountedEntry[];
  readonly optics: Optics;
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  /** By what the minutes of its channels are weighed here: what this rig sees beside the sky. */
  readonly own: OwnByChannel;
  /** Worth of a minute at the target's best here, by channel. */
  readonly bestRates: Readonly<Partial<Record<Channel, number>>>;
  /** Hours at the reference that a kept hour of an entry is, wherever it points. */
  readonly countOf: (entry: ContributionData) => number;
  /** Worth of a minute at the target's best at the reference, by channel. */
  readonly bestThere: Readonly<Partial<Record<Channel, number>>>;
  /** Hours of the goal that an hour of this part is: one as kept; by light, hours at the reference, the target at its best in both places. */
  readonly hourIs: (channel: Channel) => number;
  /** What is left to do in the channels promised, as far as this rig has filters for them: in minutes with this part's own kit and sky. */
  readonly needs: readonly Need[];
  /** Promised channels with work left that this rig has no filter for. */
  readonly withoutFilter: readonly Channel[];
  /** Channels with work left that this part does not promise. */
  readonly ofOthers: readonly Channel[];
  /** What is collected, panel by channel. */
  readonly cells: readonly LoomCell[];
}

/** Worked out when it is first asked for. */
function once<T>(work: () => T): () => T {
  let known: { readonly is: T } | null = null;
  return () => (known ??= { is: work() }).is;
}

const NONE: Library["contributions"] = [];
const contexts = topic<ProjectContext>(500);
/** Puts a project together; null when its rig, place, frame or goals are gone, or do not go together (`gapOf` says which). The same object until something in it changes. */
export function contextOf(library: Library, projectId: string): ProjectContext | null {
  const project = library.projects.find((p) => p.id === projectId);
  const part = project ? shownPart(library, project) : null;
  const drawn = library.frames.filter((f) => f.data.projectId === projectId);
  const reference = drawn.find((f) => f.id === project?.data.frameId) ?? drawn[0];
  const frame = drawn.find((f) => f.id === part?.data.frameId) ?? reference;
  const goal = library.goals.find((g) => g.data.projectId === projectId);
  const rig = library.rigs.find((r) => r.id === part?.data.rigId);
  const home = library.places.find((p) => p.id === part?.data.placeId);
  if (!project || !part || !reference || !frame || !goal || !rig || !home) return null;
  const place = withLearntChances(library, home);
  const everywhere = moonOf(library);
  const filters = filtersOf(library, rig.data);
  const measured = referenceOf(library, project, part);
  if (!measured) return null;
  const contributions = library.log.byProject.get(projectId) ?? NONE;
  const said = part.stored ?? project;
  const parts = [
    project,
    said,
    goal,
    rig,
    place,
    contributions,
    everywhere,
    part.isMine,
    measured.place,
    measured.rig,
    // What its entries were taken with, whoever's it is.
    library.rigs,
    library.places,
    library.filters,
    ...drawn,
  ];
  const work = (): ProjectContext => {
    const optics = opticsOf(rig.data);
    const panels = panelsOf(frame.data, optics);
    const goals = goal.data.channels;
    const stock: FrameStock = { frames: drawn, referenceId: reference.id };
    const layout = layoutOf(frame.data, optics);
    const channels = [...new Set([...goals, ...contributions.map((x) => x.data)].map((x) => x.channel))];
    const { light } = project.data;
    const ownAt = (at: Kit): OwnByChannel => ownOf(at, [...goals, ...channels.map((channel) => ({ channel }))], light);
    const own = ownAt({ place, rig, filters });
    const isHome = measured.place.id === place.id && measured.rig.id === rig.id;
    const bestAt = (where: Place, by: OwnByChannel) =>
      Object.fromEntries(channels.map((ch) => [ch, bestRate(where, layout.centre, ch, by[ch])])) as Record<
        Channel,
        number
      >;
    // A night of tables a channel: only where somebody asks for it.
    const bestRates = once(() => bestAt(place.data, own));
    const bestThere = isHome ? bestRates : once(() => bestAt(measured.place.data, ownAt(measured)));
    // The reference frame is measured by the reference's rig, whoever looks; a frame of one's own by one's own.
    const counter = frame === reference ? measured.rig : rig;
    const counting = once(() => ({ bestRates: bestThere(), hourIs: hourIsOf(library, measured, light) }));
    const filled = panelsFilled(library, {
      frameId: frame.id,
      stock,
      shot: shotWith(frame.data, opticsOf(counter.data)),
      rigId: counter.id,
      ownerId: part.data.memberId,
    });
    const entries = contributions.map((x) => x.data);
    const byLight = once(() => countedEntries(entries, { ...counting(), panelsOf: filled }));
    const hours = project.data.hours ?? "kept";
    // What a short set keeps does not hang on the sky: its hours count as kept, whatever the others do.
    const isShort = (e: ContributionData) => isOfShortSet(goals, e);
    const asKept = countedEntries(hours === "kept" ? entries : entries.filter(isShort), {
      ...AS_KEPT,
      panelsOf: (e) => wholePanels(filled(e)),
    });
    const counted = hours === "kept" ? asKept : [...byLight().filter((e) => !isShort(e)), ...asKept];
    const hourIs = (channel: Channel): number => {
      if (hours === "kept") return 1;
      if (measured.rig.id === rig.id && measured.place.id === place.id) return 1;
      const is = hourWith(channel, kitOf({ place, rig, filters }), kitOf(measured), light);
      const best = (bestRates()[channel] ?? 0) / (bestThere()[channel] ?? 0);
      return is === null ? 1 : is * (Number.isFinite(best) && best > 0 ? best : 1);
    };
    const counts = countedByCell(counted, goals);
    const leftOf = (some: readonly PanelGoal[]): Need[] =>
      remainingWork(some, panels, (panel, g) => counts.get(cellKey(panel, g.channel, g.isShort ?? false)) ?? 0).map(
        (n) => {
          const is = n.isShort ? 1 : hourIs(n.channel);
          return { ...n, goalMin: n.goalMin / is, remainingMin: n.remainingMin / is };
        },
      );
    const isHere = (g: PanelGoal) => filterOfGoal(g, filters) !== null;
    const isMine = (g: PanelGoal) => promises(part.data, g.channel);
    const channelsLeft = (some: readonly PanelGoal[]) => [
      ...new Set(
        leftOf(some)
          .filter(hasLeft)
          .map((n) => n.channel),
      ),
    ];
    return {
      desk: library.desk,
      id: projectId,
      project,
      part,
      frame,
      stock,
      // The reference frame is the first, whatever order they are stored in.
      frames: [reference, ...drawn.filter((f) => f !== reference)].filter(
        (f) => f === frame || !isFollowed(f.id, drawn),
      ),
      goal,
      rig,
      place,
      moon: moonOfProject(everywhere, project.data, goals),
      filters,
      contributions,
      hours,
      counted,
      get byLight() {
        return byLight();
      },
      own,
      reference: measured,
      hourIs,
      countOf: (entry) => countAgainst(counting())(entry),
      get bestThere() {
        return bestThere();
      },
      optics,
      layout,
      get bestRates() {
        return bestRates();
      },
      panels,
      needs: leftOf(goals.filter((g) => isMine(g) && isHere(g))),
      withoutFilter: channelsLeft(goals.filter((g) => isMine(g) && !isHere(g))),
      ofOthers: channelsLeft(goals.filter((g) => !isMine(g))),
      cells: loomOf(goals, panels, counted),
    };
  };
  try {
    const context = library.desk.memo(contexts, projectId, parts, work);
    library.desk.at(broken).delete(projectId);
    return context;
  } catch (error) {
    library.desk.at(broken).set(projectId, error instanceof Error ? error.message : "it cannot be worked out");
    return null;
  }
}

/** All projects that can be put together. */
export const contextsOf = (library: Library): ProjectContext[] =>
  library.projects.flatMap((p) => contextOf(library, p.id) ?? []);

/** Whether nothing is planned for a project now: it is finished, or waits for its next season, by the evenings of its place. */
export function isAtRest({ desk, project, place }: Pick<ProjectContext, "desk" | "project" | "place">): boolean {
  const { finishedOn, restsUntil } = project.data;
  return finishedOn !== undefined || (restsUntil !== undefined && tonightAt(desk, place.data) < restsUntil);
}

/** Those of them that the owner of the library takes part in, and that are not at rest: what is planned for them. */
export const ownContextsOf = (library: Library): ProjectContext[] =>
  contextsOf(library).filter((c) => c.part.isMine && !isAtRest(c));

/** As `contextOf`, for a page that cannot be without it. */
export function requireContext(library: Library, projectId: string): ProjectContext {
  const context = contextOf(library, projectId);
  if (context) return context;
  const gap = gapOf(library, projectId);
  if (!gap || (gap.part === "project" && gap.reason === null)) refusePage({ code: "unknownProject" });
  refusePage({ code: "projectGap", gap });
}

/** The panel of a project that a sheet calls "P3 the arch"; absent = it is gone. */
export const panelLabelled = (c: Pick<ProjectContext, "panels">, label: string) =>
  c.panels.find((p) => panelName(p.number) === label.split(" ")[0]);
