import type { ProjectData } from "~/core/plan";
import type { ChangedPart } from "~/desk/records/parts";

/** What the head of a project asks for. */
export type ProjectIntent =
  | { readonly act: "change"; readonly rev: string; readonly data: ProjectData; readonly part: ChangedPart | null }
  | { readonly act: "delete" };
