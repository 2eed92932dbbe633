import type { FrameData } from "~/core/plan";
import type { MovedFrame } from "~/desk/projects/projects";
import type { KeepFault } from "~/core/records";

/** What a frame's page asks to be kept. A picture under the chart goes as a form, since it is a file. */
export type FrameIntent =
  | { readonly act: "save"; readonly id: string; readonly baseRev: string; readonly data: FrameData }
  | { readonly act: "another"; readonly projectId: string; readonly data: FrameData }
  | { readonly act: "shoot"; readonly projectId: string; readonly frameId: string }
  /** A change of a frame with hours: as another frame, to which the old hours count or do not. */
  | { readonly act: "move"; readonly projectId: string; readonly frameId: string; readonly change: MovedFrame };

/** What came of it. */
export interface FrameAnswer {
  readonly refusal: KeepFault | null;
  readonly revs: Readonly<Record<string, string>>;
}

/** What came of keeping a picture. */
export interface PictureAnswer {
  readonly refusal: KeepFault | null;
  readonly said: string;
}
