import { KIT_PRESETS } from "~/desk/kit/start";
import { type TypedStart, startFaults } from "./typed-start";

/** The blanks of the sentence, in order. */
export const BLANKS = ["where", "optics", "camera", "sky"] as const;
/** One of them. */
export type Blank = (typeof BLANKS)[number];

/** Which blanks are filled. */
export function filledOf(typed: TypedStart): Readonly<Record<Blank, boolean>> {
  const faults = startFaults(typed);
  return {
    where: typed.timeZone !== "" && !faults["latitudeDeg"] && !faults["longitudeDeg"],
    optics: typed.optics !== "",
    camera: typed.camera !== "",
    sky: typed.sky !== "" && !faults["sky"],
  };
}

/** The first blank that is still empty; null = none is. */
export const nextOf = (typed: TypedStart): Blank | null => BLANKS.find((b) => !filledOf(typed)[b]) ?? null;

/** "a refractor 480 mm f/6". */
export function opticsWords(typed: TypedStart): string {
  const words = KIT_PRESETS.optics.find((o) => o.id === typed.optics)?.words ?? "";
  return words === "" ? "" : `${words.startsWith("8") ? "an" : "a"} ${words}`;
}

/** "a colour camera: cooled, APS-C, 26 megapixels". */
export function cameraWords(typed: TypedStart): string {
  const camera = KIT_PRESETS.cameras.find((c) => c.id === typed.camera);
  if (!camera) return "";
  return camera.colour ? `a ${camera.words}` : `a ${typed.isColour ? "colour" : "monochrome"} camera, ${camera.words}`;
}

/** "six", of ten nights; 0 to 10. */
export const clearOfTenWords = (n: number): string =>
  ["none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"][Math.round(n)]!;
