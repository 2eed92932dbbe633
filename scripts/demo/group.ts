import { DEFAULT_OVERHEADS, type Filter, type Rig } from "~/core/exposure";
import type { Place } from "~/core/night";
import type { FrameData, GoalData, PartData, ProjectData } from "~/core/plan";

/** The demo's evening: Saturday 5 December 2026, shortly after sunset at Ines' garden, four days before new Moon. */
export const DEMO_NOW = "2026-12-05T16:40:00Z";

export const members = { "member-ines": "Ines", "member-tomasz": "Tomasz", "member-wren": "Wren" } as const;

const south = [0.28, 0.31, 0.38, 0.42, 0.46, 0.52, 0.6, 0.58, 0.5, 0.42, 0.32, 0.3];
const north = [0.2, 0.24, 0.3, 0.36, 0.38, 0.38, 0.38, 0.38, 0.34, 0.28, 0.22, 0.18];
const points = (list: readonly (readonly [number, number])[]) =>
  list.map(([azimuthDeg, altitudeDeg]) => ({ azimuthDeg, altitudeDeg }));

/** Invented places. */
export const places: Readonly<Record<string, Place>> = {
  "place-garden": {
    name: "Garden behind the mill", latitudeDeg: 43.62, longitudeDeg: 1.93, elevationM: 240, timeZone: "Europe/Paris", skyMagPerArcsec2: 20.4, minAltitudeDeg: 18, seeingArcsec: 2.8, clearChance: south,
    skyline: points([[0, 14], [40, 12], [75, 18], [100, 24], [118, 12], [150, 10], [171, 11], [174, 26], [196, 31], [203, 15], [235, 12], [262, 20], [290, 28], [318, 24], [345, 15]]),
    landmarks: [
      { name: "neighbour's poplar", shape: "tree", azimuthDeg: 128, widthDeg: 13, altitudeDeg: 38 },
      { name: "tool shed", shape: "box", azimuthDeg: 52, widthDeg: 16, altitudeDeg: 21 },
    ],
    domes: [{ name: "the town", azimuthDeg: 305, magPerArcsec2: 18.9, widthDeg: 26 }],
    lamps: [{ name: "lane lamp", azimuthDeg: 231, altitudeDeg: 9, radiusDeg: 8 }],
    windShare: 0.5,
  },
  "place-pass": {
    name: "Pass above the larches", latitudeDeg: 42.71, longitudeDeg: 1.79, elevationM: 1730, timeZone: "Europe/Paris", skyMagPerArcsec2: 21.5, minAltitudeDeg: 15, seeingArcsec: 2.2, clearChance: south.map((p) => Math.min(1, p + 0.06)),
    skyline: points([[0, 9], [90, 6], [180, 4], [225, 11], [270, 8]]),
    domes: [{ name: "valley", azimuthDeg: 350, magPerArcsec2: 20.4, widthDeg: 30 }],
    travelMin: 65, extraSetUpMin: 15, windShare: 0.8,
  },
  "place-terrace": {
    name: "Tomasz’s terrace", latitudeDeg: 51.94, longitudeDeg: 20.71, elevationM: 112, timeZone: "Europe/Warsaw", skyMagPerArcsec2: 18.9, minAltitudeDeg: 25, seeingArcsec: 3, clearChance: north,
    skyline: points([[0, 60], [70, 22], [140, 15], [220, 18], [300, 45]]),
  },
  "place-barn": {
    name: "Wren’s barn", latitudeDeg: 54.31, longitudeDeg: -2.2, elevationM: 310, timeZone: "Europe/London", skyMagPerArcsec2: 21.2, minAltitudeDeg: 20, seeingArcsec: 3.2, clearChance: north,
    skyline: points([[0, 8], [120, 12], [200, 7], [280, 22]]),
  },
}; // prettier-ignore

const filter = (
  name: string,
  channel: Filter["channel"],
  centreNm: number,
  bandwidthNm: number,
  transmission = 0.92,
  thicknessMm = 2,
): Filter => ({ name, channel, centreNm, bandwidthNm, transmission, thicknessMm });

/** Filters by id. */
export const filters: Readonly<Record<string, Filter>> = {
  "filter-l": filter("L", "L", 550, 290, 0.96),
  "filter-r": filter("R", "R", 635, 100, 0.95),
  "filter-g": filter("G", "G", 530, 95, 0.95),
  "filter-b": filter("B", "B", 445, 100, 0.95),
  "filter-ha5": filter("Ha 5 nm", "Ha", 656.3, 5, 0.92, 3),
  "filter-o5": filter("OIII 5 nm", "OIII", 500.7, 5, 0.9, 3),
  "filter-ha3": filter("Ha 3 nm", "Ha", 656.3, 3, 0.88),
  "filter-s3": filter("SII 3 nm", "SII", 672.4, 3, 0.86),
  "filter-colour": filter("No filter (colour)", "Colour", 550, 280, 0.97, 0),
  "filter-dual": filter("Dual band", "Dual", 500.7, 12, 0.9),
};

const mono = {
  isColour: false,
  quantumEfficiency: 0.82,
  readNoiseE: 1.6,
  gainEPerAdu: 0.26,
  bits: 16,
  offsetAdu: 400,
  fullWellE: 20_000,
  darkEPerSec: 0.002,
  workingTempC: -10,
  isCooled: true,
};
const common = {
  slotMm: 7,
  reducerFactor: 1,
  obstruction: 0,
  throughput: 0.92,
  isGuided: true,
  longestUnguidedSec: 60,
  rotator: "manual" as const,
  reflections: 0,
  flipsAtMeridian: true,
  overheads: DEFAULT_OVERHEADS,
};

/** Invented rigs. */
export const rigs: Readonly<Record<string, Rig>> = {
  "rig-refractor": { ...common, ...mono, name: "Garden refractor", focalLengthMm: 480, apertureMm: 80, sensor: { widthPx: 4144, heightPx: 2822, pixelPitchUm: 4.63, binning: 1 }, cameraName: "Mono-43", power: { mountW: 9, cameraW: 6, coolerW: 26, dewW: 11, computerW: 9, batteryWh: 640, chemistry: "lithium" }, filterIds: ["filter-l", "filter-r", "filter-g", "filter-b", "filter-ha5", "filter-o5"] },
  "rig-newtonian": { ...common, ...mono, name: "Newtonian with colour camera", focalLengthMm: 600, reducerFactor: 0.95, apertureMm: 150, obstruction: 0.34, throughput: 0.8, reflections: 2, sensor: { widthPx: 6248, heightPx: 4176, pixelPitchUm: 3.76, binning: 1 }, isColour: true, quantumEfficiency: 0.75, cameraName: "Colour-26", filterIds: ["filter-colour", "filter-dual"] },
  "rig-city": { ...common, ...mono, name: "Terrace refractor", focalLengthMm: 714, reducerFactor: 0.8, apertureMm: 102, rotator: "motor", sensor: { widthPx: 4656, heightPx: 3520, pixelPitchUm: 3.8, binning: 1 }, cameraName: "Mono-16", filterIds: ["filter-ha3", "filter-s3"] },
  "rig-lens": { ...common, ...mono, name: "Barn telephoto", focalLengthMm: 200, apertureMm: 71, sensor: { widthPx: 4144, heightPx: 2822, pixelPitchUm: 4.63, binning: 1 }, cameraName: "Mono-43b", filterIds: ["filter-l", "filter-o5"] },
}; // prettier-ignore

const project = (
  name: string,
  targetId: string,
  startedOn: string,
  school: ProjectData["school"],
  notes: string,
): ProjectData => ({ name, targetId, startedOn, school, notes });

/** Who shoots what from where: each member's part in a project. */
export const parts: readonly Omit<PartData, "frameId">[] = [
  { projectId: "project-loop", memberId: "member-ines", placeId: "place-garden", rigId: "rig-refractor" },
  { projectId: "project-roof", memberId: "member-ines", placeId: "place-garden", rigId: "rig-newtonian" },
  { projectId: "project-shell", memberId: "member-ines", placeId: "place-garden", rigId: "rig-refractor", channels: ["OIII", "L"] },
  { projectId: "project-shell", memberId: "member-tomasz", placeId: "place-terrace", rigId: "rig-city", channels: ["Ha"] },
  { projectId: "project-shell", memberId: "member-wren", placeId: "place-barn", rigId: "rig-lens", channels: ["OIII", "L"], evenings: { busyWeekdays: [1, 3], placeIds: [] } },
]; // prettier-ignore

/** Projects with their frames and goals, under one id each. */
export const projects: Readonly<Record<string, { readonly project: ProjectData; readonly frame: Omit<FrameData, "projectId">; readonly goal: Omit<GoalData, "projectId"> }>> = {
  "project-loop": {
    project: project("The whole Veil, two by three", "Sh2-103", "2026-10-02", "allPanelsEveryNight", "Print one metre wide. OIII first while it is high."),
    frame: { raDeg: 312.9, decDeg: 30.75, positionAngleDeg: 4, columns: 2, rows: 3, overlap: 0.15 },
    goal: { protectedMag: 10.5, channels: [{ channel: "Ha", filterId: "filter-ha5", hoursPerPanel: 2, subSec: 300 }, { channel: "OIII", filterId: "filter-o5", hoursPerPanel: 2.5, subSec: 300 }] },
  },
  "project-roof": {
    project: project("Sculptor past the roof", "NGC 253", "2026-10-20", "panelAfterPanel", "Tops out at 21°, and the roof cuts the best part. Worth a try all the same."),
    frame: { raDeg: 11.888, decDeg: -25.288, positionAngleDeg: 52, columns: 1, rows: 1, overlap: 0.15 },
    goal: { protectedMag: 10.5, channels: [{ channel: "Colour", filterId: "filter-colour", hoursPerPanel: 9, subSec: 60 }] },
  },
  "project-shell": {
    project: { ...project("Sh2-216, three gardens", "Sh2-216", "2026-10-28", "panelAfterPanel", "Ines and Wren take OIII and L, Tomasz Ha from town. Three skies and three rigs: hours count by light."), hours: "light" },
    frame: { raDeg: 70.84, decDeg: 46.7, positionAngleDeg: 0, columns: 1, rows: 1, overlap: 0.15 },
    goal: { protectedMag: 10.5, channels: [{ channel: "Ha", filterId: "filter-ha5", hoursPerPanel: 14, subSec: 300 }, { channel: "OIII", filterId: "filter-o5", hoursPerPanel: 18, subSec: 300 }, { channel: "L", filterId: "filter-l", hoursPerPanel: 3, subSec: 60 }] },
  },
}; // prettier-ignore
