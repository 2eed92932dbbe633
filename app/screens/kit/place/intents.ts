import type { Place } from "~/core/night";

/** What the page of a place asks for beside saving its form: the version that counts where two were written at once. */
export interface PlaceIntent {
  readonly act: "settle";
  readonly data: Place;
}
