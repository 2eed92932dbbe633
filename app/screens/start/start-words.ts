import { isColourOf, ownValues } from "~/components/kit/typed-kit";
import { fixed, trimmed } from "~/components/numbers";
import { opticsName } from "~/core/exposure";
import { KIT_PRESETS } from "~/desk/kit/start";
import { type TypedStart, startFaults } from "./typed-start";

/** The blanks of the sentence, in order. */
export const BLANKS = ["where", "optics", "camera", "sky"] as const;
/** One of them. */
export type Blank = (typeof BLANKS)[number];

/** Which blanks are filled. */
export function filledOf(typed: TypedStart): Readonly<Record<Blank, boolean>> {
  const faults = startFaults(typed);
  const camera = KIT_PRESETS.cameras.find((c) => c.id === typed.camera);
  return {
    where: typed.timeZone !== "" && !faults["latitudeDeg"] && !faults["longitudeDeg"],
    optics: typed.optics !== "",
    camera: camera !== undefined && isColourOf(camera, typed) !== null,
    sky: typed.sky !== "" && !faults["sky"],
  };
}

/** The first blank that is still empty; null = none is. */
export const nextOf = (typed: TypedStart): Blank | null => BLANKS.find((b) => !filledOf(typed)[b]) ?? null;

/** "a refractor 480 mm f/6"; "" = none is chosen. */
export function opticsWords(typed: TypedStart): string {
  const kind = KIT_PRESETS.optics.find((o) => o.id === typed.optics);
  if (!kind) return "";
  const { focalLengthMm, apertureMm } = ownValues(KIT_PRESETS, typed);
  const words = opticsName(kind, focalLengthMm, apertureMm);
  return `${words.startsWith("8") ? "an" : "a"} ${words}`;
}

/** "a colour camera, cooled, APS-C, 26 megapixels"; "" = none is chosen. */
export function cameraWords(typed: TypedStart): string {
  const camera = KIT_PRESETS.cameras.find((c) => c.id === typed.camera);
  if (!camera) return "";
  const { widthPx, heightPx, pixelPitchUm } = ownValues(KIT_PRESETS, typed);
  const isColour = isColourOf(camera, typed);
  const kind = isColour === null ? "" : isColour ? "colour " : "monochrome ";
  if (widthPx !== undefined && heightPx !== undefined)
    return `a ${kind}${camera.cooled ? "camera, cooled" : "photo camera"}, ${fixed(widthPx)} × ${fixed(heightPx)} pixels of ${trimmed(pixelPitchUm ?? camera.pixelUm)} µm`;
  return camera.colour ? `a ${camera.words}` : `a ${kind}camera, ${camera.words}`;
}

/** "four", up to ten. */
export const countWord = (n: number): string =>
  ["none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"][Math.round(n)]!;
