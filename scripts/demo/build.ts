import { mkdirSync, writeFileSync } from "node:fs";
import type { RecordKind, StoredRecord } from "~/core/crew";
import { editRecord } from "~/core/crew";
import type { Channel } from "~/core/exposure";
import { encodeBundle } from "~/core/formats";
import { placeNight, USUAL_MOON } from "~/core/night";
import { decodeRecord } from "~/core/records";
import { opticsOf } from "~/core/framing";
import type { ContributionData, CullReason } from "~/core/ledger";
import { formatDeclination, formatRightAscension } from "~/core/notation";
import { nightOffer, panelsOf, partId } from "~/core/plan";
import { randomFrom } from "~/core/numeric";
import { nightDate } from "~/core/time";
import { writeFits } from "./fits-writer";
import { DEMO_NOW, filters, members, parts, places, projects, rigs } from "./group";
import { pair, south, type Sample } from "./samples";
import { pastWeather, withPresent } from "./past-weather";

const MADE_MS = Date.parse("2026-12-01T18:00:00Z");
const DATA = new URL("../../app/data/", import.meta.url).pathname;
const PUBLIC = new URL("../../public/demo/", import.meta.url).pathname;
const nodeOf = (author: string) => `demo-${author.slice(7)}`;

function record(kind: RecordKind, id: string, data: unknown, author = "member-ines"): StoredRecord {
  const node = nodeOf(author);
  const made = editRecord({ id, kind, data }, { node, freshNode: () => node, author, nowMs: MADE_MS }, null);
  if (!made.ok) throw new Error(made.error.code);
  const checked = decodeRecord(made.value);
  if (!checked.ok) throw new Error(`${id}: ${checked.error.path} ${checked.error.message}`);
  return made.value;
}

interface Session {
  readonly project: string; readonly member: string; readonly place: string; readonly rig: string; readonly night: string; readonly channel: Channel;
  readonly panels: readonly string[]; readonly subSec: number; readonly taken: number; readonly kept: number; readonly reason: CullReason | "";
} // prettier-ignore

const session = (
  project: string,
  who: string,
  place: string,
  rig: string,
  night: string,
  channel: Channel,
  panels: string,
  subSec: number,
  taken: number,
  kept: number,
  reason: CullReason | "" = "",
): Session => ({
  project: `project-${project}`,
  member: `member-${who}`,
  place: `place-${place}`,
  rig: `rig-${rig}`,
  night,
  channel,
  panels: panels.split(" "),
  subSec,
  taken,
  kept,
  reason,
});

const sessions: readonly Session[] = [
  session("loop", "ines", "garden", "refractor", "2026-10-08", "OIII", "P1 P2 P3 P4", 300, 9, 8, "guiding"),
  session("loop", "ines", "garden", "refractor", "2026-10-11", "OIII", "P1 P2 P3 P4 P5 P6", 300, 10, 10),
  session("loop", "ines", "garden", "refractor", "2026-10-24", "Ha", "P1 P2 P3 P4 P5 P6", 300, 11, 9, "cloud"),
  session("loop", "ines", "garden", "refractor", "2026-11-05", "OIII", "P3 P4 P6", 300, 8, 8),
  session("loop", "ines", "garden", "refractor", "2026-11-21", "Ha", "P1 P2 P4", 300, 9, 8, "trail"),
  session("roof", "ines", "garden", "newtonian", "2026-11-06", "Colour", "P1", 60, 84, 61, "seeing"),
  session("roof", "ines", "garden", "newtonian", "2026-11-12", "Colour", "P1", 60, 97, 80, "wind"),
  session("shell", "ines", "garden", "refractor", "2026-11-08", "OIII", "P1", 300, 52, 49, "cloud"),
  session("shell", "ines", "garden", "refractor", "2026-11-13", "L", "P1", 60, 70, 66, "trail"),
  session("shell", "tomasz", "terrace", "city", "2026-10-30", "Ha", "P1", 300, 41, 38, "light"),
  session("shell", "tomasz", "terrace", "city", "2026-11-19", "Ha", "P1", 300, 66, 64),
  session("shell", "wren", "barn", "lens", "2026-11-10", "OIII", "P1", 300, 44, 30, "cloud"),
];

/** What Wren took since the last exchange: only in Wren's file. */
const news: readonly Session[] = [
  session("shell", "wren", "barn", "lens", "2026-11-29", "OIII", "P1", 300, 38, 35, "wind"),
  session("shell", "wren", "barn", "lens", "2026-12-01", "L", "P1", 60, 90, 88),
];

function contributionsOf(s: Session): StoredRecord[] {
  const { frame } = projects[s.project]!;
  const offer = nightOffer(
    placeNight(places[s.place]!, nightDate(s.night), USUAL_MOON),
    { frame: "icrs", raDeg: frame.raDeg, decDeg: frame.decDeg },
    [s.channel],
  ).channels[s.channel]!;
  const worthRate = offer.usableMin > 0 ? Number((offer.worthMin / offer.usableMin).toFixed(3)) : null;
  return s.panels.map((panel) => {
    const data: ContributionData = {
      projectId: s.project, panel, channel: s.channel, night: s.night, memberId: s.member, rigId: s.rig, placeId: s.place, exposureSec: s.subSec,
      taken: s.taken, kept: s.kept, reason: s.reason, worthRate, startMs: null, fileName: "", note: "",
    }; // prettier-ignore
    return record(
      "contribution",
      `contribution-${s.project.slice(8)}-${s.member.slice(7)}-${s.night}-${panel}-${s.channel}`,
      data,
      s.member,
    );
  });
}

/** A night of single subs with what their stars were like: cloud towards the end, a gust, a sky that grows darker. */
function subsOf(s: Session, firstIso: string): StoredRecord[] {
  const random = randomFrom(26);
  const [whole] = contributionsOf(s);
  const lost = s.taken - s.kept;
  return Array.from({ length: s.taken }, (_, i) => {
    const isLost = i >= s.taken - lost - 4 && i < s.taken - 4;
    const isGust = i === 17;
    const isThin = i === s.taken - 2;
    const startMs = Date.parse(firstIso) + i * (s.subSec + 9) * 1000;
    const data: ContributionData = {
      ...(whole!.data as ContributionData),
      taken: 1,
      kept: isLost ? 0 : 1,
      reason: isLost ? "cloud" : "",
      startMs,
      fileName: `shell_${s.channel}_${String(i + 1).padStart(3, "0")}.fits`,
      gain: 120,
      binning: 1,
      temperatureC: -10,
      airC: Number((6.4 - 0.06 * i + 0.2 * random()).toFixed(1)),
      focusSteps: 15_210 - 6 * Math.floor(i / 6),
      measure: {
        fwhmPx: Number((1.62 + 0.16 * random() + (isGust ? 0.75 : 0)).toFixed(2)),
        eccentricity: Number((0.36 + 0.08 * random() + (isGust ? 0.28 : 0)).toFixed(2)),
        stars: Math.round((880 + 60 * random()) * (isLost ? 0.3 : isThin ? 0.62 : 1)),
        background: Math.round(1180 - 2.2 * i + 14 * random() + (isLost ? 260 : 0)),
        from: "header",
      },
      ...(isLost
        ? { history: [{ untilMs: Date.parse(firstIso) + 14 * 3_600_000, kept: 1, reason: "" as const }] }
        : {}),
    };
    return record("contribution", `${whole!.id}-${String(i + 1).padStart(3, "0")}`, data, s.member);
  });
}

const kit = [
  ...Object.entries(members).map(([id, name]) => record("member", id, { name }, id)),
  ...Object.entries(places).map(([id, data]) => record("place", id, data)),
  ...Object.entries(filters).map(([id, data]) => record("filter", id, data)),
  ...Object.entries(rigs).map(([id, data]) => record("rig", id, data)),
];
const projectRecords = Object.entries(projects).flatMap(([id, p]) => [
  record("project", id, { ...p.project, frameId: `frame-${id.slice(8)}` }),
  record("frame", `frame-${id.slice(8)}`, { projectId: id, ...p.frame }),
  record("goal", `goal-${id.slice(8)}`, { projectId: id, ...p.goal }),
]);
const partRecords = parts.map((p) => record("part", partId(p.projectId, p.memberId), p, p.memberId));
const settings = record("settings", "settings", {
  memberId: "member-ines",
  placeId: "place-garden",
  rigId: "rig-refractor",
  lastBackupMs: null,
});
/** The night that is logged sub by sub. */
const BY_SUBS = { project: "project-shell", member: "member-ines", night: "2026-11-08", first: "2026-11-08T19:40:00Z" };
const old = sessions.flatMap((s) =>
  s.project === BY_SUBS.project && s.member === BY_SUBS.member && s.night === BY_SUBS.night
    ? subsOf(s, BY_SUBS.first)
    : contributionsOf(s),
);

const weather = pastWeather("place-garden", places["place-garden"]!, sessions.filter((s) => s.place === "garden").map((s) => s.night)); // prettier-ignore

const allWeather = ["place-garden", "place-pass"].reduce(
  (told, id) => withPresent(told, id, places[id]!, Date.parse(DEMO_NOW)),
  weather,
);

/** Records as reading leaves them: the app takes its own samples as they are. */
function asRead(records: readonly StoredRecord[]): StoredRecord[] {
  return records.map((r) => {
    const read = decodeRecord(r);
    if (!read.ok) throw new Error(`${r.kind}/${r.id}: ${read.error.path} ${read.error.message}`);
    return read.value;
  });
}

mkdirSync(PUBLIC, { recursive: true });
writeFileSync(
  `${DATA}demo.json`,
  encodeBundle(
    asRead([
      ...kit,
      ...projectRecords,
      ...partRecords,
      settings,
      ...old,
      ...allWeather.map((w) => record(w.kind, w.id, w.data)),
    ]),
    "everything",
    "2026-12-01T18:00:00Z",
  ),
);

const isShell = (r: StoredRecord) => r.id.includes("shell");
const friends = [
  "member-ines",
  "member-tomasz",
  "member-wren",
  "place-garden",
  "place-barn",
  "place-terrace",
  "rig-refractor",
  "rig-lens",
  "rig-city",
  ...Object.keys(filters),
];
const fromWren = [
  ...kit.filter((r) => friends.includes(r.id)),
  ...projectRecords.filter(isShell),
  ...partRecords.filter(isShell),
  ...old.filter(isShell),
  ...news.flatMap(contributionsOf),
];
writeFileSync(`${PUBLIC}from-wren.zenithar.json`, encodeBundle(fromWren, "project", "2026-12-03T09:20:00Z"));

// Last night's exposures of panel 5 as files, to be dropped on the log.
const loop = projects["project-loop"]!;
const optics = opticsOf(rigs["rig-refractor"]!);
const panel = panelsOf({ projectId: "project-loop", ...loop.frame }, optics)[4]!;
for (let i = 0; i < 6; i++) {
  const start = new Date(Date.parse("2026-12-04T18:05:00Z") + i * 309_000).toISOString().slice(0, -1);
  const bytes = writeFits([
    ["IMAGETYP", "Light Frame"], ["OBJECT", "Veil panel 5"], ["DATE-OBS", start], ["EXPTIME", 300], ["FILTER", "OIII 5 nm"], ["INSTRUME", "Mono-43"], ["GAIN", 120], ["CCD-TEMP", -10], ["FOCALLEN", 480],
    ["XPIXSZ", 4.63], ["XBINNING", 1], ["OBJCTRA", formatRightAscension(panel.centre.raDeg).replaceAll(/[hms]/g, "")], ["OBJCTDEC", formatDeclination(panel.centre.decDeg).replaceAll(/[°′″]/g, "").replace("−", "-")],
  ]); // prettier-ignore
  writeFileSync(`${PUBLIC}veil-p5-oiii-${String(i + 1).padStart(2, "0")}.fits`, bytes);
}
console.log(
  `${kit.length + projectRecords.length + partRecords.length + 1 + old.length + allWeather.length} records, ${fromWren.length} in Wren's file, 6 exposures`,
);

/** A sample group as a bundle of everything, as its owner has it. */
function writeSample(name: string, sample: Sample): void {
  const { owner } = sample;
  const worthOf = (s: Sample["sessions"][number]) => {
    const { frame } = sample.projects[s.project]!;
    const night = placeNight(sample.places[s.place]!, nightDate(s.night), USUAL_MOON);
    const offer = nightOffer(night, { frame: "icrs", raDeg: frame.raDeg, decDeg: frame.decDeg }, [s.channel]).channels[s.channel]!; // prettier-ignore
    return offer.usableMin > 0 ? Number((offer.worthMin / offer.usableMin).toFixed(3)) : null;
  };
  const [placeId, rigId] = [Object.keys(sample.places)[0]!, Object.keys(sample.rigs)[0]!];
  const records = [
    ...Object.entries(sample.members).map(([id, called]) => record("member", id, { name: called }, id)),
    ...Object.entries(sample.places).map(([id, data]) => record("place", id, data, owner)),
    ...Object.entries(sample.filters).map(([id, data]) => record("filter", id, data, owner)),
    ...Object.entries(sample.rigs).map(([id, data]) => record("rig", id, data, owner)),
    ...Object.entries(sample.projects).flatMap(([id, p]) => [
      record("project", id, { ...p.project, frameId: `frame-${id.slice(8)}`, measuredBy: owner }, owner),
      record("frame", `frame-${id.slice(8)}`, { projectId: id, ...p.frame }, owner),
      record("goal", `goal-${id.slice(8)}`, { projectId: id, ...p.goal }, owner),
    ]),
    ...sample.parts.map(
      ({ project: projectId, member: memberId, place, rig, channels }) =>
      record("part", partId(projectId, memberId), { projectId, memberId, placeId: place, rigId: rig, ...(channels ? { channels } : {}) }, memberId), // prettier-ignore
    ),
    record("settings", "settings", { memberId: owner, placeId, rigId, lastBackupMs: null, wishHours: 2, moon: USUAL_MOON, standsBeforeDark: true, simulatedServices: true }, owner), // prettier-ignore
    ...sample.sessions.map((s) => {
      const data: ContributionData = {
        projectId: s.project, panel: "P1", channel: s.channel, night: s.night, memberId: s.member, rigId: s.rig, placeId: s.place, exposureSec: s.subSec,
        taken: s.taken, kept: s.kept, reason: s.reason, worthRate: worthOf(s), startMs: null, fileName: "", note: "",
      }; // prettier-ignore
      return record("contribution", `contribution-${s.project.slice(8)}-${s.member.slice(7)}-${s.night}-${s.channel}`, data, s.member); // prettier-ignore
    }),
  ];
  writeFileSync(`${DATA}sample-${name}.json`, encodeBundle(asRead(records), "everything", "2026-12-01T18:00:00Z"));
}
writeSample("south", south);
writeSample("pair", pair);
