import type { Rig } from "~/core/exposure";

/** What the list of rigs asks for. */
export type RigsIntent =
  | { readonly act: "use"; readonly id: string }
  | { readonly act: "copy"; readonly data: Rig }
  | { readonly act: "delete"; readonly id: string; readonly rev: string; readonly data: Rig };
