import type { Place } from "~/core/night";

/** What the list of places asks for. */
export type PlacesIntent =
  | { readonly act: "use"; readonly id: string }
  | { readonly act: "delete"; readonly id: string; readonly rev: string; readonly data: Place };
