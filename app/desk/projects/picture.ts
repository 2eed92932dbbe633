import type { CatalogEntry } from "~/core/catalog";
import { pictureOf, type Picture, type PictureKit, type Rig } from "~/core/exposure";
import type { Place } from "~/core/night";
import type { Library } from "~/desk/records/library";
import { filtersOf } from "./reference";

/** A rig with its filters under the sky of a place, as hours are worked out for it. */
export const pictureKit = (library: Pick<Library, "filters">, rig: Rig, place: Place): PictureKit => ({
  rig,
  filters: filtersOf(library, rig).map((f) => f.data),
  skyMagPerArcsec2: place.skyMagPerArcsec2,
  seeingArcsec: place.seeingArcsec,
});

/** What a picture of a target takes with a rig at a place: the same in every list, page and plan. */
export const pictureAt = (library: Pick<Library, "filters">, entry: CatalogEntry, rig: Rig, place: Place): Picture =>
  pictureOf(entry, pictureKit(library, rig, place));
