import { mosaicPanels, panelName, type MosaicLayout, type Optics, type Panel } from "~/core/framing";
import type { Channel } from "~/core/exposure";
import type { Need } from "./allocate";

/** A picture to be made. */
export interface ProjectData {
  readonly name: string;
  /** Lead designation of the catalogue object it began with. */
  readonly targetId: string;
  readonly placeId: string;
  readonly rigId: string;
  readonly startedOn: string;
  readonly school: "allPanelsEveryNight" | "panelAfterPanel";
  readonly notes: string;
}

/** Where a project points: one record per project, under its own id, so that framing and naming do not collide. */
export interface FrameData {
  readonly projectId: string;
  readonly raDeg: number;
  readonly decDeg: number;
  readonly positionAngleDeg: number;
  readonly columns: number;
  readonly rows: number;
  readonly overlap: number;
}

/** Hours wanted in one channel for every panel, and the sub length chosen for it. */
export interface PanelGoal {
  readonly channel: Channel;
  readonly filterId: string;
  readonly hoursPerPanel: number;
  readonly subSec: number;
}

/** What a project wants. */
export interface GoalData {
  readonly projectId: string;
  readonly channels: readonly PanelGoal[];
  /** Stars fainter than this must not clip. */
  readonly protectedMag: number;
}

/** The mosaic a frame describes with the optics of a rig. */
export const layoutOf = (frame: FrameData, optics: Optics): MosaicLayout => ({
  centre: { frame: "icrs", raDeg: frame.raDeg, decDeg: frame.decDeg },
  positionAngleDeg: frame.positionAngleDeg,
  planeWidthArcmin: optics.planeWidthArcmin,
  planeHeightArcmin: optics.planeHeightArcmin,
  columns: frame.columns,
  rows: frame.rows,
  overlap: frame.overlap,
});

/** Panels of a frame. */
export const panelsOf = (frame: FrameData, optics: Optics): Panel[] => mosaicPanels(layoutOf(frame, optics));

/** What is left to do, per panel and channel, from the goals and the minutes kept. */
export function remainingWork(
  goals: readonly PanelGoal[],
  panelCount: number,
  keptMin: (panel: string, channel: Channel) => number,
): Need[] {
  return goals.flatMap((g) =>
    Array.from({ length: panelCount }, (_, i) => {
      const panel = panelName(i + 1);
      const goalMin = g.hoursPerPanel * 60;
      return {
        panel,
        channel: g.channel,
        goalMin,
        remainingMin: Math.max(0, goalMin - keptMin(panel, g.channel)),
        subSec: g.subSec,
      };
    }),
  );
}
