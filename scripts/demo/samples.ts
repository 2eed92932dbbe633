import { DEFAULT_OVERHEADS, typicalRig, type Channel, type KitPresets, type Rig } from "../../app/core/exposure";
import type { CullReason } from "../../app/core/ledger";
import type { Place } from "../../app/core/night";
import type { FrameData, GoalData, ProjectData } from "../../app/core/plan";
import type { Filter } from "../../app/core/exposure";
import presets from "../../app/data/kit-presets.json";

/** One evening of a sample, booked panel by panel. */
export interface SampleSession {
  readonly project: string;
  readonly member: string;
  readonly place: string;
  readonly rig: string;
  readonly night: string;
  readonly channel: Channel;
  readonly subSec: number;
  readonly taken: number;
  readonly kept: number;
  readonly reason: CullReason | "";
}

/** An invented group: who, where, with what, and what they have so far. */
export interface Sample {
  readonly owner: string;
  readonly members: Readonly<Record<string, string>>;
  readonly places: Readonly<Record<string, Place>>;
  readonly filters: Readonly<Record<string, Filter>>;
  readonly rigs: Readonly<Record<string, Rig>>;
  readonly projects: Readonly<Record<string, { readonly project: ProjectData; readonly frame: Omit<FrameData, "projectId">; readonly goal: Omit<GoalData, "projectId"> }>>; // prettier-ignore
  readonly parts: readonly { readonly project: string; readonly member: string; readonly place: string; readonly rig: string; readonly channels?: readonly Channel[] }[]; // prettier-ignore
  readonly sessions: readonly SampleSession[];
}

const kit = presets as KitPresets;
const byId = <T extends { readonly id: string }>(list: readonly T[], id: string): T => list.find((x) => x.id === id)!;
const points = (list: readonly (readonly [number, number])[]) => list.map(([azimuthDeg, altitudeDeg]) => ({ azimuthDeg, altitudeDeg })); // prettier-ignore
const plain: Filter = {
  name: "No filter (colour)",
  channel: "Colour",
  centreNm: 550,
  bandwidthNm: 280,
  transmission: 0.97,
};
const narrow = (name: string, channel: Filter["channel"], centreNm: number): Filter => ({ name: `${name} 3 nm`, channel, centreNm, bandwidthNm: 3, transmission: 0.88, thicknessMm: 3 }); // prettier-ignore
const overheads = { ...DEFAULT_OVERHEADS, focusMin: 6, setUpMin: 20 };

/** A beginner with a photo camera and a short telephoto on a tracker, behind a house near 41° south. */
export const south: Sample = {
  owner: "member-marama",
  members: { "member-marama": "Marama" },
  places: {
    "place-fern-yard": {
      name: "Behind the fern house", latitudeDeg: -41.21, longitudeDeg: 175.46, elevationM: 90, timeZone: "Pacific/Auckland", skyMagPerArcsec2: 21.1, minAltitudeDeg: 25, seeingArcsec: 3,
      clearChance: [0.46, 0.48, 0.44, 0.4, 0.34, 0.3, 0.3, 0.32, 0.34, 0.36, 0.4, 0.44],
      skyline: points([[0, 12], [60, 18], [110, 9], [180, 7], [240, 21], [300, 26], [340, 15]]),
    },
  },
  filters: { "filter-marama-colour": plain },
  rigs: {
    "rig-marama-lens": {
      ...typicalRig("Telephoto on the tracker", { optics: byId(kit.optics, "lens-135"), camera: byId(kit.cameras, "p-aps-24"), mount: byId(kit.mounts, "tracker"), isColour: true }, ["filter-marama-colour"]),
      overheads,
    },
  },
  projects: {
    "project-wide-cloud": {
      project: { name: "The Large Cloud, one lens wide", targetId: "PGC 17223", startedOn: "2026-11-06", school: "panelAfterPanel", notes: "First picture. Many short subs, no guiding." },
      frame: { raDeg: 80.9, decDeg: -69.4, positionAngleDeg: 0, columns: 1, rows: 1, overlap: 0.15 },
      goal: { protectedMag: null, channels: [{ channel: "Colour", filterId: "filter-marama-colour", hoursPerPanel: 6, subSec: 30 }] },
    },
  },
  parts: [{ project: "project-wide-cloud", member: "member-marama", place: "place-fern-yard", rig: "rig-marama-lens" }],
  sessions: [
    { project: "project-wide-cloud", member: "member-marama", place: "place-fern-yard", rig: "rig-marama-lens", night: "2026-11-06", channel: "Colour", subSec: 30, taken: 90, kept: 61, reason: "guiding" },
    { project: "project-wide-cloud", member: "member-marama", place: "place-fern-yard", rig: "rig-marama-lens", night: "2026-11-09", channel: "Colour", subSec: 30, taken: 140, kept: 118, reason: "guiding" },
    { project: "project-wide-cloud", member: "member-marama", place: "place-fern-yard", rig: "rig-marama-lens", night: "2026-11-14", channel: "Colour", subSec: 30, taken: 60, kept: 22, reason: "cloud" },
    { project: "project-wide-cloud", member: "member-marama", place: "place-fern-yard", rig: "rig-marama-lens", night: "2026-11-28", channel: "Colour", subSec: 30, taken: 150, kept: 131, reason: "wind" },
  ],
}; // prettier-ignore

const mono = (name: string, optics: string, camera: string, filterIds: readonly string[]): Rig => ({
  ...typicalRig(name, { optics: byId(kit.optics, optics), camera: byId(kit.cameras, camera), mount: byId(kit.mounts, "eq"), isColour: false }, filterIds),
  slotMm: 4,
}); // prettier-ignore

/** Two people in two bright cities, who share the channels of one nebula through narrow filters. */
export const pair: Sample = {
  owner: "member-odile",
  members: { "member-odile": "Odile", "member-piet": "Piet" },
  places: {
    "place-fourth-floor": {
      name: "Fourth floor, to the south", latitudeDeg: 50.64, longitudeDeg: 5.57, elevationM: 80, timeZone: "Europe/Brussels", skyMagPerArcsec2: 18.3, minAltitudeDeg: 30, seeingArcsec: 3.2,
      clearChance: [0.22, 0.26, 0.32, 0.36, 0.36, 0.36, 0.36, 0.38, 0.36, 0.3, 0.24, 0.2],
      skyline: points([[0, 80], [80, 60], [95, 18], [150, 12], [215, 16], [250, 55], [300, 80]]),
      domes: [{ name: "the station", azimuthDeg: 190, magPerArcsec2: 16.9, widthDeg: 35 }],
    },
    "place-roof-deck": {
      name: "Roof deck over the tram", latitudeDeg: 52.08, longitudeDeg: 4.31, elevationM: 22, timeZone: "Europe/Amsterdam", skyMagPerArcsec2: 18.1, minAltitudeDeg: 30, seeingArcsec: 3,
      clearChance: [0.2, 0.24, 0.32, 0.38, 0.38, 0.36, 0.36, 0.38, 0.36, 0.28, 0.22, 0.2],
      skyline: points([[0, 35], [90, 14], [180, 10], [270, 20]]),
    },
  },
  filters: {
    "filter-pair-ha": narrow("Ha", "Ha", 656.3),
    "filter-pair-oiii": narrow("OIII", "OIII", 500.7),
    "filter-pair-sii": narrow("SII", "SII", 672.4),
  },
  rigs: {
    "rig-odile": mono("Small refractor on the balcony", "ref-360", "c-sq-9", ["filter-pair-ha", "filter-pair-oiii"]),
    "rig-piet": mono("Deck refractor", "ref-480", "c-43-12", ["filter-pair-oiii", "filter-pair-sii"]),
  },
  projects: {
    "project-jelly": {
      project: { name: "Jellyfish, by channels", targetId: "IC 443", startedOn: "2026-11-02", school: "panelAfterPanel", notes: "Odile takes Ha, Piet SII, both OIII when the Moon is away." },
      frame: { raDeg: 94.3, decDeg: 22.6, positionAngleDeg: 40, columns: 1, rows: 1, overlap: 0.15 },
      goal: { protectedMag: null, channels: [{ channel: "Ha", filterId: "filter-pair-ha", hoursPerPanel: 12, subSec: 300 }, { channel: "OIII", filterId: "filter-pair-oiii", hoursPerPanel: 16, subSec: 300 }, { channel: "SII", filterId: "filter-pair-sii", hoursPerPanel: 12, subSec: 300 }] },
    },
    "project-tulip": {
      project: { name: "Tulip before it sets", targetId: "Sh2-101", startedOn: "2026-10-20", school: "panelAfterPanel", notes: "" },
      frame: { raDeg: 299.9, decDeg: 35.3, positionAngleDeg: 10, columns: 1, rows: 1, overlap: 0.15 },
      goal: { protectedMag: null, channels: [{ channel: "Ha", filterId: "filter-pair-ha", hoursPerPanel: 8, subSec: 300 }] },
    },
  },
  parts: [
    { project: "project-jelly", member: "member-odile", place: "place-fourth-floor", rig: "rig-odile", channels: ["Ha", "OIII"] },
    { project: "project-jelly", member: "member-piet", place: "place-roof-deck", rig: "rig-piet", channels: ["SII", "OIII"] },
    { project: "project-tulip", member: "member-odile", place: "place-fourth-floor", rig: "rig-odile" },
  ],
  sessions: [
    { project: "project-tulip", member: "member-odile", place: "place-fourth-floor", rig: "rig-odile", night: "2026-10-20", channel: "Ha", subSec: 300, taken: 24, kept: 20, reason: "cloud" },
    { project: "project-tulip", member: "member-odile", place: "place-fourth-floor", rig: "rig-odile", night: "2026-10-27", channel: "Ha", subSec: 300, taken: 31, kept: 30, reason: "trail" },
    { project: "project-jelly", member: "member-odile", place: "place-fourth-floor", rig: "rig-odile", night: "2026-11-10", channel: "Ha", subSec: 300, taken: 52, kept: 47, reason: "light" },
    { project: "project-jelly", member: "member-odile", place: "place-fourth-floor", rig: "rig-odile", night: "2026-11-22", channel: "Ha", subSec: 300, taken: 40, kept: 38, reason: "wind" },
    { project: "project-jelly", member: "member-piet", place: "place-roof-deck", rig: "rig-piet", night: "2026-11-12", channel: "OIII", subSec: 300, taken: 60, kept: 51, reason: "cloud" },
    { project: "project-jelly", member: "member-piet", place: "place-roof-deck", rig: "rig-piet", night: "2026-11-23", channel: "SII", subSec: 300, taken: 44, kept: 44, reason: "" },
  ],
}; // prettier-ignore
