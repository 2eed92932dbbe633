import { meOf } from "~/desk/records/parts";
import type { Place } from "~/core/night";
import type { Rig } from "~/core/exposure";
import { contextsOf } from "~/desk/projects/project";
import type { Entity, Library } from "~/desk/records/library";

/** What would make answers better. */
export interface BetterNext {
  readonly what: "skyline" | "sky" | "camera" | "chance" | "nights" | "project";
  /** Of what: a place or a rig. */
  readonly id: string;
  /** Nights still to be logged. */
  readonly left: number;
}

/** So many logged nights teach overheads, spoilt subs and which forecast to trust; a proposal of this project. */
const TEACHING_NIGHTS = 3;
const CAMERA_VALUES = ["readNoiseE", "gainEPerAdu", "fullWellE", "quantumEfficiency", "darkEPerSec"];

/** What somebody could enter next, the most telling first: only what is still a guess. */
export function betterNext(library: Library, place: Entity<Place>, rig: Entity<Rig> | null): readonly BetterNext[] {
  const guessed = place.data.typical ?? [];
  const me = meOf(library);
  const nights = new Set(library.contributions.filter((c) => c.data.memberId === me).map((c) => c.data.night)).size;
  const found: BetterNext[] = [];
  if (library.projects.length === 0) found.push({ what: "project", id: "", left: 0 });
  if (guessed.includes("skyline") && place.data.skyline.length === 0)
    found.push({ what: "skyline", id: place.id, left: 0 });
  if (rig && CAMERA_VALUES.some((v) => rig.data.typical?.includes(v)))
    found.push({ what: "camera", id: rig.id, left: 0 });
  if (guessed.includes("skyMagPerArcsec2")) found.push({ what: "sky", id: place.id, left: 0 });
  if (guessed.includes("clearChance")) found.push({ what: "chance", id: place.id, left: 0 });
  if (nights < TEACHING_NIGHTS) found.push({ what: "nights", id: "", left: TEACHING_NIGHTS - nights });
  return found;
}

/** What comes first for who has nothing that could be planned: a place, a target, or what their projects lack, where all of them lack something. */
export type FirstStep = "place" | "target" | "gaps";

/** The first step of somebody none of whose projects can be planned. */
export const firstStepOf = (library: Library): FirstStep =>
  library.places.length === 0
    ? "place"
    : library.projects.length > 0 && contextsOf(library).length === 0
      ? "gaps"
      : "target";
