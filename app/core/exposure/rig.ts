import type { SensorGeometry } from "~/core/framing";
import type { Channel } from "./channel";

/** A filter, or the bare colour camera. */
export interface Filter {
  readonly name: string;
  readonly channel: Channel;
  readonly centreNm: number;
  readonly bandwidthNm: number;
  /** Peak transmission (0, 1]. */
  readonly transmission: number;
  /** Of the glass; absent or 0 = not known, or none. */
  readonly thicknessMm?: number;
}

/** Time that is not exposure. */
export interface Overheads {
  readonly downloadSec: number;
  /** Dither and settle. */
  readonly ditherSec: number;
  readonly ditherEvery: number;
  readonly focusMin: number;
  readonly focusEveryMin: number;
  readonly filterChangeSec: number;
  readonly panelChangeSec: number;
  readonly flipMin: number;
  readonly setUpMin: number;
}

/** Starting values; common practice, no source. Log your own and change them. */
export const DEFAULT_OVERHEADS: Overheads = {
  downloadSec: 3,
  ditherSec: 20,
  ditherEvery: 3,
  focusMin: 4,
  focusEveryMin: 60,
  filterChangeSec: 20,
  panelChangeSec: 120,
  flipMin: 5,
  setUpMin: 25,
};

/** °C of air by which focus is lost where nobody measured it; common practice, no source. */
export const USUAL_REFOCUS_C = 2;

/** What a camera is at one of its settings: gain, read noise and full well belong together. */
export interface CameraSetting {
  /** As people call it: "ISO 800", "gain 100". */
  readonly name: string;
  readonly gainEPerAdu: number;
  readonly readNoiseE: number;
  readonly fullWellE: number;
}

/** A rig with its camera at one of its settings; its usual one where that name is not known. */
export function atSetting(rig: Rig, name: string | undefined): Rig {
  const setting = rig.settings?.find((s) => s.name === name);
  if (!setting) return rig;
  const { gainEPerAdu, readNoiseE, fullWellE } = setting;
  return { ...rig, gainEPerAdu, readNoiseE, fullWellE };
}

/** A telescope or lens with its camera, filters and mount, at its usual setting. */
export interface Rig {
  readonly name: string;
  readonly focalLengthMm: number;
  readonly reducerFactor: number;
  readonly apertureMm: number;
  readonly obstruction: number;
  /** Of the optics without filter (0, 1]. */
  readonly throughput: number;
  readonly sensor: SensorGeometry;
  readonly isColour: boolean;
  /** A photo camera as it is sold: its own filter holds back most of the light of hydrogen and sulphur. Absent = it does not. */
  readonly isStock?: boolean;
  /** As written in the headers of its files; "" = any. */
  readonly cameraName: string;
  readonly quantumEfficiency: number;
  readonly readNoiseE: number;
  readonly gainEPerAdu: number;
  readonly bits: number;
  readonly offsetAdu: number;
  readonly fullWellE: number;
  /** At the working temperature. */
  readonly darkEPerSec: number;
  readonly workingTempC: number;
  readonly isCooled: boolean;
  readonly isGuided: boolean;
  /** Longest sub the mount holds without guiding. */
  readonly longestUnguidedSec: number;
  readonly rotator: "none" | "manual" | "motor";
  /** Mirrors in the light path. */
  readonly reflections: number;
  readonly flipsAtMeridian: boolean;
  readonly filterIds: readonly string[];
  readonly overheads: Overheads;
  /** Gusts at the mount that spoil subs, km/h; absent = the usual for a short refractor. */
  readonly gustLimitKmh?: number;
  /** By how much of air its focus is lost, °C; absent = the usual. */
  readonly refocusC?: number;
  /** Other settings of the camera, by name: an ISO, or a gain of its maker's counting. */
  readonly settings?: readonly CameraSetting[];
  /** How far the sensor runs above the air without a cooler, °C; absent = 10. */
  readonly aboveAirC?: number;
  /** Thickest filter its wheel or drawer takes; absent or 0 = not known. */
  readonly slotMm?: number;
  /** Moves in altitude and azimuth, and nothing turns the camera against the field. */
  readonly isAltAz?: boolean;
  /** Names of the values that are typical of its class, from memory, and not its owner's own. */
  readonly typical?: readonly string[];
  /** What it draws, and from what; absent = nobody said. */
  readonly power?: Power;
  /** Its owner's own rule for subs; absent = none. */
  readonly limits?: SubLimits;
  /** What its owner changed of the checklist that its kind of kit has; absent = nothing. */
  readonly care?: RigCare;
}

/** Parts of a night that have checks of their own, in their order. */
export const CARE_PARTS = ["daylight", "setUp", "firstSub", "night", "packUp"] as const;
export type CarePart = (typeof CARE_PARTS)[number];

/** When a check is there: every night, away from home, or when two rigs run. */
export const CARE_OCCASIONS = ["always", "away", "twoRigs"] as const;
export type CareOccasion = (typeof CARE_OCCASIONS)[number];

/** A check in its owner's own words. */
export interface OwnCheck {
  readonly id: string;
  readonly part: CarePart;
  readonly occasion: CareOccasion;
  readonly words: string;
  /** Id of the usual check in whose place it stands; absent = it comes after all of its part. */
  readonly insteadOf?: string;
}

/** What an owner changed of a rig's checklist. */
export interface RigCare {
  readonly own: readonly OwnCheck[];
  /** Ids of usual checks that are left out. */
  readonly without: readonly string[];
}

/** What a sub must keep to, by the owner's own rule; absent = no limit. */
export interface SubLimits {
  /** Wider stars are too wide, pixels as binned. */
  readonly fwhmPx?: number;
  readonly eccentricity?: number;
  /** Fewer stars are too few. */
  readonly stars?: number;
  /** A brighter sky is too bright, in the file's own counts. */
  readonly background?: number;
}

/** What a rig draws by part, W, and the battery it runs on. */
export interface Power {
  readonly mountW: number;
  readonly cameraW: number;
  /** Of the cooler at full strength. */
  readonly coolerW: number;
  readonly dewW: number;
  readonly computerW: number;
  /** As printed on it: at 20 °C or more. */
  readonly batteryWh: number;
  readonly chemistry: "lithium" | "lead";
}
