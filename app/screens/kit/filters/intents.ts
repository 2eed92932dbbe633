import type { Filter } from "~/core/exposure";

/** What the list of filters asks for beside saving a form. */
export type FiltersIntent =
  | { readonly act: "delete"; readonly id: string; readonly rev: string; readonly data: Filter }
  /** A set of filters as they are bought together, with usual values. */
  | { readonly act: "set"; readonly id: string };
