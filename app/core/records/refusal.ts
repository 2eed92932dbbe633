import type { ClockFault, RecordKind } from "~/core/crew";

/** Why something was not kept: the store refused, or what was to be kept would not read again. Nothing of the act is stored. */
export type KeepFault =
  | { readonly code: "storageFull" | "storageBlocked" | "storageNewer" | "notFetched" }
  | ClockFault
  /** What was asked cannot be done with what is there: no part in the project, no place yet, hours that do not fill the panels. */
  | { readonly code: "takesNoPart" | "noPlaceYet" | "hoursDoNotFit" }
  | { readonly code: "recordRefused"; readonly kind: RecordKind; readonly path: string; readonly message: string };

/** Why a project cannot be put together: which part of it is missing, and whether it is there but does not read. */
export interface ProjectGap {
  readonly part: "project" | "part" | "place" | "rig" | "frame" | "goal";
  /** Why what is stored of it does not read; null when nothing is stored. */
  readonly reason: string | null;
}

/** Why a page cannot be shown. */
export type PageFault =
  | { readonly code: "unknownPlace" | "unknownRig" | "unknownProject" | "unknownTarget" | "badNight" }
  | { readonly code: "projectGap"; readonly gap: ProjectGap };
