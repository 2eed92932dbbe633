import { opticsOf, panelName } from "~/core/framing";
import { latestLanding, type Landing } from "~/core/live";
import type { NightDate } from "~/core/time";
import type { Library } from "~/desk/records/library";
import { contextOf } from "~/desk/projects/project";
import { subsOfNight } from "./cull";

/** The sub of a night that landed last, with what a page needs to tell of it. */
export interface LandingView {
  readonly landing: Landing;
  readonly projectName: string;
  /** Arcseconds a pixel of its rig, as its pictures are binned; 0 = the rig is gone. */
  readonly scale: number;
}

/** The last sub of a night, of one rig where it is given; null without any single subs. */
export function landingOf(library: Library, night: NightDate, rigId: string | null): LandingView | null {
  const subs = subsOfNight(library, night, null).filter((s) => rigId === null || s.data.rigId === rigId);
  const landing = latestLanding(
    subs,
    (id) => library.rigs.find((r) => r.id === id)?.data.limits,
    ({ data }) =>
      contextOf(library, data.projectId)?.panels.find((p) => panelName(p.number) === data.panel)?.centre ?? null,
  );
  if (!landing) return null;
  const { projectId, rigId: of } = landing.sub.data;
  const rig = library.rigs.find((r) => r.id === of);
  return {
    landing,
    projectName: library.projects.find((p) => p.id === projectId)?.data.name ?? "a project",
    scale: rig ? opticsOf(rig.data).pixelScaleArcsecPerPx : 0,
  };
}
