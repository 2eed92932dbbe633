import { setTemperature } from "~/components/measures";
import type { Check, UsualCheckId } from "~/core/care";
import type { CareOccasion, CarePart, Rig } from "~/core/exposure";

/** Parts of a night, as headings of a checklist. */
export const PART_WORDS: Readonly<Record<CarePart, string>> = {
  daylight: "By daylight",
  setUp: "Setting up",
  firstSub: "Before the first sub",
  night: "Through the night",
  packUp: "Packing up",
};

/** When a check is there. */
export const OCCASION_WORDS: Readonly<Record<CareOccasion, string>> = {
  always: "every night",
  away: "away from home",
  twoRigs: "with two rigs",
};

type KitFacts = Pick<Rig, "workingTempC" | "longestUnguidedSec">;

/** Usual checks in words; where people or animals can come to harm, they say what to do. */
const USUAL_WORDS: Readonly<Record<UsualCheckId, string | ((rig: KitFacts) => string)>> = {
  ground: "Ground firm, tripod level, nobody’s way across it",
  cables: "Cables free all the way the tube will go",
  card: "Room enough on the card or disk",
  ownBattery: "Camera battery full, or the camera fed by cable",
  mains: "Mains: plugs and joints off the wet ground, behind a residual-current device, as your local code asks",
  weights: "Counterweights on before the telescope",
  lifting: "Lift with straight back, or with two",
  collimation: "Collimation looked at",
  sun: "Cap on until the Sun is down; optics never towards it",
  packed: "Packed: every cable, dew heaters, spare fuses, red light, warm clothes, something hot to drink",
  told: "Somebody knows where you are and when you will be back; phone charged",
  labelled: "Cables of both rigs labelled, each on power and computer of its own",
  balance: "Both axes balanced",
  trackerLoad: "Camera no heavier than the tracker bears; every clamp tight",
  polar: "Polar aligned, once stars show",
  levelTwoStars: "Levelled, aligned on two stars",
  laser: "A laser to align by: only where it is allowed, never towards aircraft or people",
  cool: (rig) => `Cooled to ${setTemperature(rig.workingTempC)}`,
  airOut: "Camera and optics half an hour in the air before",
  dew: "Dew heater on before the glass is wet",
  apart: "Tripods so far apart that neither is knocked or shaded by the other",
  animals: "Food shut away; boars, dogs and cattle hear a voice before they see a light",
  focus: "Focused on a bright star, one test exposure",
  ring: "Focus ring taped",
  photoSettings: "Raw files; stabiliser, noise reduction and display off",
  frame: "Frame and camera angle right within 1°",
  guiding: "Guiding calibrated, dither on",
  unguided: (rig) => `Subs no longer than ${rig.longestUnguidedSec} s, unguided`,
  nudge: "After the frame is found: polar alignment looked at again",
  flipSet: "Flip set for the meridian; the tube clears the tripod on the other side",
  together: "Both rigs dither together",
  hourly: "Each hour: stars round, glass dry, cables free",
  polarAgain: "Framing checked between sets: a tracker drifts",
  turning: "The field turns: one look at the corners each half hour",
  darksInCold: "Darks in the same cold, cap on",
  warmUp: "Cooler off, a few minutes to warm up",
  cap: "Cap on before sunrise; mount parked",
  ice: "Ice on steps and ground looked for before carrying",
  weightsLast: "Telescope off before the counterweights",
  dry: "Wet glass left to dry indoors, not wiped",
  nothingLeft: "Ground searched with a white light: nothing left behind",
  drive: "Tired: sleep before the drive",
};

/** A usual check, as it is said for a rig. */
export function usualWords(id: UsualCheckId, rig: KitFacts): string {
  const words = USUAL_WORDS[id];
  return typeof words === "string" ? words : words(rig);
}

/** A check as it is said: in its owner's words, else as usual. */
export const checkWords = (check: Check, rig: KitFacts): string =>
  check.words ?? (check.usual === null ? "" : usualWords(check.usual, rig));
