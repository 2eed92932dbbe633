import { CARE_PARTS, type CareOccasion, type CarePart, type Rig } from "~/core/exposure";
import { opticsOf } from "~/core/framing";

/** Kinds of kit that want care of their own. */
export interface KitKind {
  /** Follows the sky without guiding, with the camera on it as it is. */
  readonly isTracker: boolean;
  readonly isAltAz: boolean;
  readonly isGuided: boolean;
  readonly isCooled: boolean;
  /** A photo camera: no cooler, its own battery, its own ideas of noise. */
  readonly isPhotoCamera: boolean;
  /** Focused by a ring that slips. */
  readonly isLens: boolean;
  /** Mirrors that want collimating. */
  readonly hasMirrors: boolean;
  /** Heavier than one lifts without thinking. */
  readonly isHeavy: boolean;
  readonly flips: boolean;
  /** Battery and not the mains. */
  readonly isOnBattery: boolean;
}

// Without mirrors, what is wider or slower has a focuser and not a ring that slips; proposals of this project.
const LENS_APERTURE_MM = 70;
const LENS_FOCAL_RATIO = 4.5;
const HEAVY_APERTURE_MM = 150; // with its mount over 25 kg, from memory
const COLLIMATED_MIRRORS = 2; // one mirror is a diagonal or a corrector's fold

/** Which kind of kit a rig is, by what is known of it. */
export function kitKind(rig: Rig): KitKind {
  const { focalRatio } = opticsOf(rig);
  const isAltAz = rig.isAltAz === true;
  const hasMirrors = rig.reflections >= COLLIMATED_MIRRORS || rig.obstruction > 0;
  return {
    isTracker: !rig.isGuided && !isAltAz && !rig.flipsAtMeridian,
    isAltAz,
    isGuided: rig.isGuided,
    isCooled: rig.isCooled,
    isPhotoCamera: !rig.isCooled && rig.isColour,
    isLens: !hasMirrors && rig.apertureMm < LENS_APERTURE_MM && focalRatio < LENS_FOCAL_RATIO,
    hasMirrors,
    isHeavy: rig.apertureMm >= HEAVY_APERTURE_MM,
    flips: rig.flipsAtMeridian,
    isOnBattery: rig.power !== undefined,
  };
}

/** Checks every kind of kit has, and those of one kind; common practice, no source. Their words are the interface's. */
const TABLE = [
  ["ground", "daylight", "always", () => true],
  ["cables", "daylight", "always", () => true],
  ["card", "daylight", "always", () => true],
  ["ownBattery", "daylight", "always", (k) => k.isPhotoCamera],
  ["mains", "daylight", "always", (k) => !k.isOnBattery],
  ["weights", "daylight", "always", (k) => k.flips || k.isHeavy],
  ["lifting", "daylight", "always", (k) => k.isHeavy],
  ["collimation", "daylight", "always", (k) => k.hasMirrors],
  ["sun", "daylight", "always", () => true],
  ["packed", "daylight", "away", () => true],
  ["told", "daylight", "away", () => true],
  ["labelled", "daylight", "twoRigs", () => true],
  ["balance", "setUp", "always", (k) => !k.isAltAz && !k.isTracker],
  ["trackerLoad", "setUp", "always", (k) => k.isTracker],
  ["polar", "setUp", "always", (k) => !k.isAltAz],
  ["levelTwoStars", "setUp", "always", (k) => k.isAltAz],
  ["laser", "setUp", "always", (k) => !k.isAltAz],
  ["cool", "setUp", "always", (k) => k.isCooled],
  ["airOut", "setUp", "always", (k) => !k.isCooled],
  ["dew", "setUp", "always", () => true],
  ["apart", "setUp", "twoRigs", () => true],
  ["animals", "setUp", "away", () => true],
  ["focus", "firstSub", "always", () => true],
  ["ring", "firstSub", "always", (k) => k.isLens],
  ["photoSettings", "firstSub", "always", (k) => k.isPhotoCamera],
  ["frame", "firstSub", "always", () => true],
  ["guiding", "firstSub", "always", (k) => k.isGuided],
  ["unguided", "firstSub", "always", (k) => !k.isGuided],
  ["nudge", "firstSub", "always", (k) => k.isTracker],
  ["flipSet", "firstSub", "always", (k) => k.flips],
  ["together", "firstSub", "twoRigs", () => true],
  ["hourly", "night", "always", () => true],
  ["polarAgain", "night", "always", (k) => k.isTracker],
  ["turning", "night", "always", (k) => k.isAltAz],
  ["darksInCold", "packUp", "always", (k) => !k.isCooled],
  ["warmUp", "packUp", "always", (k) => k.isCooled],
  ["cap", "packUp", "always", () => true],
  ["ice", "packUp", "always", () => true],
  ["weightsLast", "packUp", "always", (k) => k.flips || k.isHeavy],
  ["dry", "packUp", "always", () => true],
  ["nothingLeft", "packUp", "away", () => true],
  ["drive", "packUp", "away", () => true],
] as const satisfies readonly (readonly [string, CarePart, CareOccasion, (kit: KitKind) => boolean])[];

/** A check that a kind of kit usually has. */
export type UsualCheckId = (typeof TABLE)[number][0];

const USUAL: readonly {
  readonly id: UsualCheckId;
  readonly part: CarePart;
  readonly occasion: CareOccasion;
  readonly isFor: (kit: KitKind) => boolean;
}[] = TABLE.map(([id, part, occasion, isFor]) => ({ id, part, occasion, isFor }));

/** A line of a checklist: a usual one, in its owner's words or as usual, or its owner's alone. */
export interface Check {
  /** Stays the same when it is said in other words. */
  readonly id: string;
  readonly part: CarePart;
  readonly occasion: CareOccasion;
  /** Which usual check it is; null = its owner's alone. */
  readonly usual: UsualCheckId | null;
  /** In its owner's words; null = as usual. */
  readonly words: string | null;
}

/** Whole checklist of a rig for all occasions, in the order of the night: usual ones, and its owner's where they stand for those or after. */
export function wholeChecklist(rig: Rig): readonly Check[] {
  const kind = kitKind(rig);
  const { own, without } = rig.care ?? { own: [], without: [] };
  const usual = USUAL.filter((c) => c.isFor(kind));
  const reworded = new Map(own.flatMap((c) => (c.insteadOf === undefined ? [] : [[c.insteadOf, c]])));
  const has = new Set<string>(usual.map((c) => c.id));
  return CARE_PARTS.flatMap((part) => [
    ...usual.flatMap((c): Check[] => {
      const instead = reworded.get(c.id);
      if (c.part !== part || (without.includes(c.id) && !instead)) return [];
      const { id, occasion } = c;
      return [{ id, part, occasion, usual: id, words: instead?.words ?? null }];
    }),
    // One that stands for a check which this kit no longer has is still its owner's.
    ...own.flatMap((c): Check[] =>
      c.part === part && (c.insteadOf === undefined || !has.has(c.insteadOf))
        ? [{ id: c.id, part, occasion: c.occasion, usual: null, words: c.words }]
        : [],
    ),
  ]);
}

/** Usual checks of a rig's kind of kit that its owner left out. */
export function leftOutOf(rig: Rig): readonly UsualCheckId[] {
  const there = new Set(wholeChecklist(rig).map((c) => c.usual));
  const kind = kitKind(rig);
  return USUAL.filter((c) => c.isFor(kind) && !there.has(c.id)).map((c) => c.id);
}

/** What to check with a rig on a night: what is for every night, and what for one away from home or with another rig beside it. */
export const checklistOf = (
  rig: Rig,
  night: { readonly isAway: boolean; readonly hasTwoRigs: boolean },
): readonly Check[] =>
  wholeChecklist(rig).filter(
    (c) => c.occasion === "always" || (c.occasion === "away" ? night.isAway : night.hasTwoRigs),
  );
