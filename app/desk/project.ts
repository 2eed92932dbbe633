import { data } from "react-router";
import type { Channel, Filter, Rig } from "~/core/exposure";
import { opticsOf, type MosaicLayout, type Optics, type Panel } from "~/core/framing";
import { cellKey, keptByCell, loomOf, type ContributionData, type LoomCell } from "~/core/ledger";
import type { MoonWishes, Place } from "~/core/night";
import {
  filterOfGoal,
  layoutOf,
  moonOfProject,
  panelsOf,
  remainingWork,
  type FrameData,
  type GoalData,
  type Need,
  type PanelGoal,
  type PlanRules,
  type ProjectData,
} from "~/core/plan";
import { moonOf } from "./choice";
import { withLearntChances } from "./learnt";
import type { Entity, Library } from "./library";
import { recaller } from "./recall";

/** A project with everything that screens need of it, looked up. */
export interface ProjectContext {
  readonly id: string;
  readonly project: Entity<ProjectData>;
  /** The frame that is shot. */
  readonly frame: Entity<FrameData>;
  /** All frames drawn for the project. */
  readonly frames: readonly Entity<FrameData>[];
  readonly goal: Entity<GoalData>;
  readonly rig: Entity<Rig>;
  readonly place: Entity<Place>;
  /** How the Moon is taken: as the project says, else as its owner does. */
  readonly moon: MoonWishes;
  readonly filters: readonly Entity<Filter>[];
  readonly contributions: readonly Entity<ContributionData>[];
  readonly optics: Optics;
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  /** What is left to do that this rig has filters for. */
  readonly needs: readonly Need[];
  /** Channels with a goal that this rig has no filter for. */
  readonly withoutFilter: readonly Channel[];
  /** What is collected, panel by channel. */
  readonly cells: readonly LoomCell[];
  readonly rules: PlanRules;
}

const NONE: Library["contributions"] = [];
const contexts = recaller<ProjectContext>(500);
/** Projects that could not be worked out, and why: set aside, so that they take no screen down. */
const broken = new Map<string, string>();

/** Why a project cannot be put together: which part of it is missing, and whether it is there but does not read. */
export interface ProjectGap {
  readonly part: "project" | "place" | "rig" | "frame" | "goal";
  /** Why what is stored of it does not read; null when nothing is stored. */
  readonly reason: string | null;
}

/** What a project lacks; null when nothing. */
export function gapOf(library: Library, projectId: string): ProjectGap | null {
  const project = library.projects.find((p) => p.id === projectId);
  const of = (part: ProjectGap["part"], isIt: (raw: Readonly<Record<string, unknown>>) => boolean): ProjectGap => {
    const stored = library.quarantine.find(({ key, raw }) => {
      const data = (raw as { readonly data?: unknown } | null)?.data;
      return key.startsWith(`${part}/`) && isIt({ id: key.slice(part.length + 1), ...(data as object | undefined) });
    });
    return { part, reason: stored?.reason ?? null };
  };
  if (!project) return of("project", (raw) => raw["id"] === projectId);
  if (!library.places.some((p) => p.id === project.data.placeId))
    return of("place", (raw) => raw["id"] === project.data.placeId);
  if (!library.rigs.some((r) => r.id === project.data.rigId))
    return of("rig", (raw) => raw["id"] === project.data.rigId);
  if (!library.frames.some((f) => f.data.projectId === projectId))
    return of("frame", (raw) => raw["projectId"] === projectId);
  if (!library.goals.some((g) => g.data.projectId === projectId))
    return of("goal", (raw) => raw["projectId"] === projectId);
  const reason = broken.get(projectId);
  return reason === undefined ? null : { part: "project", reason };
}

/** Puts a project together; null when its rig, place, frame or goals are gone, or do not go together (`gapOf` says which). The same object until something in it changes. */
export function contextOf(library: Library, projectId: string): ProjectContext | null {
  const project = library.projects.find((p) => p.id === projectId);
  const frames = library.frames.filter((f) => f.data.projectId === projectId);
  const frame = frames.find((f) => f.id === project?.data.frameId) ?? frames[0];
  const goal = library.goals.find((g) => g.data.projectId === projectId);
  const rig = library.rigs.find((r) => r.id === project?.data.rigId);
  const home = library.places.find((p) => p.id === project?.data.placeId);
  if (!project || !frame || !goal || !rig || !home) return null;
  const place = withLearntChances(library, home);
  const everywhere = moonOf(library);
  const filters = rig.data.filterIds.flatMap((id) => library.filters.filter((f) => f.id === id));
  const contributions = library.log.byProject.get(projectId) ?? NONE;
  const parts = [project, goal, rig, place, contributions, everywhere, ...frames, "filters", ...filters];
  const work = (): ProjectContext => {
    const optics = opticsOf(rig.data);
    const panels = panelsOf(frame.data, optics);
    const goals = goal.data.channels;
    const kept = keptByCell(
      contributions.map((c) => c.data),
      goals,
    );
    const isHere = (g: PanelGoal) => filterOfGoal(g, filters) !== null;
    return {
      id: projectId,
      project,
      frame,
      frames,
      goal,
      rig,
      place,
      moon: moonOfProject(everywhere, project.data, goal.data.channels),
      filters,
      contributions,
      optics,
      layout: layoutOf(frame.data, optics),
      panels,
      needs: remainingWork(
        goals.filter(isHere),
        panels,
        (panel, g) => kept.get(cellKey(panel, g.channel, g.isShort ?? false)) ?? 0,
      ),
      withoutFilter: goals.filter((g) => !isHere(g)).map((g) => g.channel),
      cells: loomOf(
        goal.data.channels,
        panels,
        contributions.map((c) => c.data),
      ),
      rules: { overheads: rig.data.overheads, school: project.data.school, leastNightMin: 45 },
    };
  };
  try {
    const context = contexts(projectId, parts, work);
    broken.delete(projectId);
    return context;
  } catch (error) {
    broken.set(projectId, error instanceof Error ? error.message : "it cannot be worked out");
    return null;
  }
}

/** All projects that can be put together. */
export const contextsOf = (library: Library): ProjectContext[] =>
  library.projects.flatMap((p) => contextOf(library, p.id) ?? []);

/** As `contextOf`, for a page that cannot be without it. */
export function requireContext(library: Library, projectId: string): ProjectContext {
  const context = contextOf(library, projectId);
  if (context) return context;
  const gap = gapOf(library, projectId);
  if (!gap || (gap.part === "project" && gap.reason === null)) throw data({ code: "unknownProject" }, { status: 404 });
  throw data({ code: "projectGap", gap }, { status: 409 });
}
