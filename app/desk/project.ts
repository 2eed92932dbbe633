import { data } from "react-router";
import type { Filter, Rig } from "~/core/exposure";
import { opticsOf, type MosaicLayout, type Optics, type Panel } from "~/core/framing";
import { keptMinutes, type ContributionData } from "~/core/ledger";
import type { Place } from "~/core/night";
import {
  layoutOf,
  panelsOf,
  remainingWork,
  type FrameData,
  type GoalData,
  type Need,
  type PlanRules,
  type ProjectData,
} from "~/core/plan";
import type { Entity, Library } from "~/storage/library";
import { withLearntChances } from "./learnt";

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
  readonly filters: readonly Entity<Filter>[];
  readonly contributions: readonly Entity<ContributionData>[];
  readonly optics: Optics;
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  readonly needs: readonly Need[];
  readonly rules: PlanRules;
}

/** Puts a project together; null when its rig, place, frame or goals are gone. */
export function contextOf(library: Library, projectId: string): ProjectContext | null {
  const project = library.projects.find((p) => p.id === projectId);
  const frames = library.frames.filter((f) => f.data.projectId === projectId);
  const frame = frames.find((f) => f.id === project?.data.frameId) ?? frames[0];
  const goal = library.goals.find((g) => g.data.projectId === projectId);
  const rig = library.rigs.find((r) => r.id === project?.data.rigId);
  const place = library.places.find((p) => p.id === project?.data.placeId);
  if (!project || !frame || !goal || !rig || !place) return null;
  const optics = opticsOf(rig.data);
  const panels = panelsOf(frame.data, optics);
  const contributions = library.contributions.filter((c) => c.data.projectId === projectId);
  const done = contributions.map((c) => c.data);
  return {
    id: projectId,
    project,
    frame,
    frames,
    goal,
    rig,
    place: withLearntChances(library, place),
    filters: rig.data.filterIds.flatMap((id) => library.filters.filter((f) => f.id === id)),
    contributions,
    optics,
    layout: layoutOf(frame.data, optics),
    panels,
    needs: remainingWork(goal.data.channels, panels, (panel, channel) => keptMinutes(done, panel, channel)),
    rules: { overheads: rig.data.overheads, school: project.data.school, leastNightMin: 45 },
  };
}

/** As `contextOf`, for a page that cannot be without it. */
export function requireContext(library: Library, projectId: string): ProjectContext {
  const context = contextOf(library, projectId);
  if (!context) throw data({ code: "unknownProject" }, { status: 404 });
  return context;
}
