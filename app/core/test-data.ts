import { DEFAULT_OVERHEADS, type Filter, type Rig } from "~/core/exposure";
import type { Place } from "~/core/night";

/** A plain place for component and core tests: a level horizon at 45° north. */
export const testPlace: Place = {
  name: "Test yard",
  latitudeDeg: 45,
  longitudeDeg: 5,
  elevationM: 200,
  timeZone: "Europe/Paris",
  skyMagPerArcsec2: 20.5,
  skyline: [],
  minAltitudeDeg: 25,
  seeingArcsec: 3,
  clearChance: Array<number>(12).fill(0.4),
};

/** A plain mono rig: 80 mm f/6 with 3.76 µm pixels. */
export const testRig: Rig = {
  name: "Test rig",
  focalLengthMm: 480,
  reducerFactor: 1,
  apertureMm: 80,
  obstruction: 0,
  throughput: 0.9,
  sensor: { widthPx: 6248, heightPx: 4176, pixelPitchUm: 3.76, binning: 1 },
  isColour: false,
  cameraName: "",
  quantumEfficiency: 0.8,
  readNoiseE: 1.5,
  gainEPerAdu: 0.25,
  bits: 16,
  offsetAdu: 500,
  fullWellE: 50_000,
  darkEPerSec: 0.002,
  workingTempC: -10,
  isCooled: true,
  isGuided: true,
  longestUnguidedSec: 60,
  rotator: "manual",
  reflections: 0,
  flipsAtMeridian: true,
  filterIds: ["filter-ha"],
  overheads: DEFAULT_OVERHEADS,
};

/** A plain 5 nm filter. */
export const testFilter: Filter = {
  name: "Ha 5 nm",
  channel: "Ha",
  centreNm: 656.3,
  bandwidthNm: 5,
  transmission: 0.9,
};
