import type { ProjectData } from "~/core/plan";

/** What the head of a project asks for. */
export type ProjectIntent =
  { readonly act: "change"; readonly rev: string; readonly data: ProjectData } | { readonly act: "delete" };
