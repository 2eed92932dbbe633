import type { Channel } from "~/core/exposure";
import type { MoonSchool } from "~/core/night";

/** Hours wanted in one channel for every panel, and the sub length chosen for it. */
export interface PanelGoal {
  readonly channel: Channel;
  /** The filter chosen for it; a rig without that one uses its own of the channel. "" = none was there when it was set. */
  readonly filterId: string;
  readonly hoursPerPanel: number;
  /** Panels that want other hours, by name. */
  readonly byPanel?: Readonly<Record<string, number>>;
  readonly subSec: number;
  /** A second, short set for what burns out in the long subs of the same channel. */
  readonly isShort?: boolean;
  /** Which of the camera's settings; absent = its usual one. */
  readonly setting?: string;
  /** How the Moon is taken in this channel; absent = as the project does. */
  readonly moon?: MoonSchool;
}

/** What a project wants. */
export interface GoalData {
  readonly projectId: string;
  readonly channels: readonly PanelGoal[];
  /** Stars fainter than this must not clip; null = stars clip freely. */
  readonly protectedMag: number | null;
}
