import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DEFAULT_OVERHEADS, type Filter, type Rig } from "~/core/exposure";
import { exposureFactsOf, readFitsHeader } from "~/core/formats";
import { panelsOf } from "~/core/plan";
import { opticsOf } from "~/core/framing";
import {
  exposureBooker,
  channelOfFilter,
  fileIdentity,
  collectedByNight,
  countedEntries,
  countedByCell,
  learntTime,
  loomOf,
  nightOutcomes,
  nightTotals,
  skyOutcomes,
  type BookingContext,
  type ContributionData,
  type CountedEntry,
  type CountRules,
  type ExposureFacts,
} from ".";
import { offsetBy } from "~/core/sky";
import { utcMs } from "~/core/time";

const rig: Rig = {
  name: "R", focalLengthMm: 480, reducerFactor: 1, apertureMm: 80, obstruction: 0, throughput: 0.9, sensor: { widthPx: 6248, heightPx: 4176, pixelPitchUm: 3.76, binning: 1 }, isColour: false, cameraName: "",
  quantumEfficiency: 0.8, readNoiseE: 1.5, gainEPerAdu: 0.25, bits: 16, offsetAdu: 500, fullWellE: 50_000, darkEPerSec: 0.002, workingTempC: -10, isCooled: true, isGuided: true, longestUnguidedSec: 60,
  rotator: "manual", reflections: 0, flipsAtMeridian: true, filterIds: ["f1"], overheads: DEFAULT_OVERHEADS,
}; // prettier-ignore
const filters: Filter[] = [{ name: "Ha 5 nm", channel: "Ha", centreNm: 656.3, bandwidthNm: 5, transmission: 0.9 }];
const place = {
  name: "x",
  latitudeDeg: 45,
  longitudeDeg: 9,
  elevationM: 100,
  timeZone: "Europe/Rome",
  skyMagPerArcsec2: 20.5,
  skyline: [],
  minAltitudeDeg: 30,
  seeingArcsec: 3,
  clearChance: Array<number>(12).fill(0.4),
};
const frame = {
  projectId: "p",
  raDeg: 312.75,
  decDeg: 30.67,
  positionAngleDeg: 20,
  columns: 2,
  rows: 2,
  overlap: 0.15,
};
const goals = {
  projectId: "p",
  protectedMag: 10,
  channels: [{ channel: "Ha" as const, filterId: "f1", hoursPerPanel: 4, subSec: 300 }],
};
const context: BookingContext = {
  memberId: "me",
  projects: [
    {
      id: "p",
      project: {
        name: "Loop",
        targetId: "Sh2-103",
        startedOn: "2026-10-01",
        school: "allPanelsEveryNight",
        notes: "",
      },
      rigId: "r",
      frameId: "f",
      frame,
      goals,
      frameRig: rig,
      targetNames: ["Sh2-103"],
    },
  ],
  rigs: [{ id: "r", rig, filters, lastPlaceId: null }],
  places: [{ id: "pl", place }],
};
const panels = panelsOf(frame, opticsOf(rig));
const facts: ExposureFacts = {
  fileName: "a.fits", sizeBytes: 1000, frameType: "light", object: "Loop", startMs: utcMs(Date.UTC(2026, 11, 5, 23, 30)), exposureSec: 300, filter: "Ha 5 nm", camera: "C", gain: 100, temperatureC: -10, focalLengthMm: 480,
  pixelPitchUm: 3.76, binning: 1, centre: panels[2]!.centre, isSolved: true, solutionFault: null, widthPx: 6248, site: null, positionAngleDeg: panels[2]!.positionAngleDeg + 180, pixelScaleArcsec: 1.6157, hints: [], wallMs: null, offset: null, rotatorDeg: null, measure: null,
}; // prettier-ignore
/** Books one exposure. */
const bookExposure = (
  one: ExposureFacts,
  at: BookingContext,
  answerTo?: Parameters<ReturnType<typeof exposureBooker>>[1],
) => exposureBooker(at)(one, answerTo);
const booked = (change: Partial<ExposureFacts> = {}) => bookExposure({ ...facts, ...change }, context);

describe("booking", () => {
  it("finds project, panel, channel and evening by itself; a flipped frame is no mismatch", () => {
    expect(booked()).toMatchObject({
      ok: true,
      value: {
        kind: "light",
        mismatches: [],
        data: { projectId: "p", panel: "P3", channel: "Ha", night: "2026-12-05", taken: 1, kept: 1 },
      },
    });
  });
  it("books to the frame an exposure was taken with, also one that is no longer shot; where two fit alike, to the one that is", () => {
    const shot = context.projects[0]!;
    const before = { ...shot, frameId: "before", frame: { ...frame, decDeg: frame.decDeg - 4 } };
    const turned = { ...shot, frameId: "turned", frame: { ...frame, positionAngleDeg: frame.positionAngleDeg + 50 } };
    const of = (
      centre: ExposureFacts["centre"],
      positionAngleDeg: number | null,
      projects = [shot, before, turned],
    ) => {
      const r = bookExposure({ ...facts, centre, positionAngleDeg }, { ...context, projects });
      return r.ok && r.value.kind === "light" ? r.value.data.frameId : r;
    };
    expect(of(panels[2]!.centre, panels[2]!.positionAngleDeg)).toBe("f");
    const old = panelsOf(before.frame, opticsOf(rig))[2]!;
    expect(of(old.centre, old.positionAngleDeg)).toBe("before");
    const aside = panelsOf(turned.frame, opticsOf(rig))[2]!;
    expect(of(aside.centre, aside.positionAngleDeg)).toBe("turned");
    expect(of(panels[2]!.centre, null, [shot, { ...shot, frameId: "twin" }])).toBe("f");
  });
  it("takes a camera's own clock for the place's: 22:10 in Rome on a winter evening is 21:10 in Greenwich", () => {
    const wallMs = Date.parse("2026-12-05T22:10:31Z");
    const r = bookExposure({ ...facts, startMs: null, wallMs }, context);
    expect(r.ok && r.value.kind === "light" && new Date(r.value.data.startMs!).toISOString()).toBe("2026-12-05T21:10:31.000Z"); // prettier-ignore
    const summer = bookExposure({ ...facts, startMs: null, wallMs: Date.parse("2026-07-05T22:10:31Z") }, context);
    expect(summer.ok && summer.value.kind === "light" && summer.value.data.startMs).toBe(Date.parse("2026-07-05T20:10:31Z")); // prettier-ignore
  });
  it("finds a file that does not say where it points by its folders: the target's name, and the panel; and says so", () => {
    const silent = { ...facts, centre: null, object: null, positionAngleDeg: null, isSolved: false };
    const of = (hints: readonly string[]) => bookExposure({ ...silent, hints }, context);
    expect(of(["night 5", "x_001.tif"])).toMatchObject({ ok: false, error: { code: "noPointing" } }); // several panels: which?
    expect(of(["night 5", "P2", "x_001.tif"])).toMatchObject({ ok: true, value: { kind: "light", data: { panel: "P2" }, mismatches: [{ code: "noPointing" }] } }); // prettier-ignore
    const one = { ...context.projects[0]!, frame: { ...frame, columns: 1, rows: 1 } };
    const [name] = one.targetNames;
    const named = bookExposure({ ...silent, hints: [name!, "x_001.tif"] }, { ...context, projects: [one] });
    expect(named).toMatchObject({ ok: true, value: { data: { panel: "P1" }, mismatches: [] } });
  });
  it("names what does not agree with the plan and books all the same", () => {
    const r = booked({
      positionAngleDeg: panels[2]!.positionAngleDeg + 92,
      focalLengthMm: 400,
      exposureSec: 120,
      temperatureC: -2,
    });
    expect(r.ok && r.value.kind === "light" && r.value.mismatches.map((m) => m.code)).toEqual([
      "rotation",
      "focalLength",
      "temperature",
      "exposure",
    ]);
  });
  it("says how far a solved file lies off its panel and which way, also beside a turn (reported: 4.7′ off, only the turn was told)", () => {
    const [panel] = [panels[2]!];
    const off = (arcmin: number, towardsDeg: number, turnDeg: number) => {
      const centre = offsetBy(panel.centre, { positionAngleDeg: towardsDeg, distanceDeg: arcmin / 60 });
      const r = booked({ centre, isSolved: true, positionAngleDeg: panel.positionAngleDeg + turnDeg });
      if (!r.ok || r.value.kind !== "light") throw new Error("not booked");
      return r.value.mismatches.map(({ code, found, wanted }) =>
        code === "pointing" ? [Number(found).toFixed(2), Number(wanted).toFixed(0)] : code,
      );
    };
    expect(off(4.7, 45, 3)).toEqual(["rotation", ["4.70", "45"]]);
    expect(off(4.7, 200, 0)).toEqual([["4.70", "200"]]);
    expect(off(0.5, 45, 0)).toEqual([]); // a dither
    expect(off(0.5, 45, 3)).toEqual(["rotation"]);
  });
  it("refuses what it cannot place, with the reason", () => {
    const code = (change: Partial<ExposureFacts>) => {
      const r = booked(change);
      return r.ok ? r.value.kind : r.error.code;
    };
    expect([code({ startMs: null }), code({ exposureSec: null }), code({ filter: null }), code({ filter: "mystery" }), code({ centre: null, object: null }), code({ centre: { frame: "icrs", raDeg: 10, decDeg: 0 } }), code({ frameType: "unknown" }), code({ frameType: "dark" })]).toEqual([
      "noStart", "noExposure", "noFilter", "unknownFilter", "noPointing", "noProject", "notALight", "calibration",
    ]); // prettier-ignore
  });
  const colour = { ...rig, isColour: true, focalLengthMm: 250, cameraName: "Colour 24" };
  const bare: Filter = { name: "none", channel: "Colour", centreNm: 550, bandwidthNm: 300, transmission: 1 };
  const two: BookingContext = {
    ...context,
    rigs: [
      { id: "r", rig: { ...rig, cameraName: "Mono 26" }, filters, lastPlaceId: null },
      { id: "c", rig: colour, filters: [bare], lastPlaceId: null },
    ],
  };
  it("tells two rigs on one field apart by scale and camera, never by the project (reported: they swapped files)", () => {
    const of = (change: Partial<ExposureFacts>) => {
      const r = bookExposure({ ...facts, ...change }, two);
      return r.ok && r.value.kind === "light" ? [r.value.data.rigId, r.value.data.channel] : r;
    };
    expect(of({ camera: "Mono 26" })).toEqual(["r", "Ha"]);
    const wide = { pixelScaleArcsec: 3.1022, focalLengthMm: 250, filter: null };
    expect(of({ ...wide, camera: "Colour 24" })).toEqual(["c", "Colour"]);
    expect(of({ ...wide, camera: null })).toEqual(["c", "Colour"]);
  });
  it("asks once for all files that leave the same answers: two like rigs, two places, two projects on one field", () => {
    const twins: BookingContext = {
      ...context,
      rigs: [context.rigs[0]!, { ...context.rigs[0]!, id: "twin" }],
      places: [context.places[0]!, { id: "hill", place: { ...place, name: "Hill", latitudeDeg: 46 } }],
      projects: [
        { ...context.projects[0]!, rigId: "gone" },
        {
          ...context.projects[0]!,
          id: "p2",
          rigId: "gone",
          project: { ...context.projects[0]!.project, name: "Loop again" },
        },
      ],
    };
    const ask = (change: Partial<ExposureFacts>) => {
      const r = bookExposure({ ...facts, ...change }, twins);
      if (!r.ok || r.value.kind !== "question") throw new Error("no question");
      return r.value;
    };
    const q = ask({});
    expect([q.projects, q.rigs, q.places]).toEqual([
      ["p", "p2"],
      ["r", "twin"],
      ["pl", "hill"],
    ]);
    expect(ask({ startMs: utcMs(Date.UTC(2026, 11, 6, 1)), fileName: "b.fits" }).key).toBe(q.key);
    const answer = { projectId: "p2", rigId: "twin", placeId: "hill" };
    const said = bookExposure(facts, twins, (key) => (key === q.key ? answer : undefined));
    expect(said).toMatchObject({ ok: true, value: { kind: "light", data: answer } });
    // Half an answer is none.
    expect(bookExposure(facts, twins, () => ({ projectId: "p" }))).toMatchObject({
      ok: true,
      value: { kind: "question" },
    });
  });
  it("takes the place from the header's coordinates, else from where that rig was last used, never from the project", () => {
    const places = [context.places[0]!, { id: "hill", place: { ...place, name: "Hill", latitudeDeg: 46 } }];
    const at = (more: Partial<BookingContext>, change: Partial<ExposureFacts> = {}) => {
      const r = bookExposure({ ...facts, ...change }, { ...context, places, ...more });
      return r.ok && r.value.kind === "light" ? r.value.data.placeId : r.ok ? r.value.kind : r.error.code;
    };
    expect(at({}, { site: { latitudeDeg: 46.01, longitudeDeg: place.longitudeDeg } })).toBe("hill");
    expect(at({ rigs: [{ ...context.rigs[0]!, lastPlaceId: "hill" }] })).toBe("hill");
    expect(at({})).toBe("question"); // the project says "pl", but the files do not
  });
  it("names wrong camera and wrong binning, and keeps where the camera pointed", () => {
    const r = bookExposure(
      { ...facts, camera: "Other", binning: 2, pixelScaleArcsec: 3.2314 },
      { ...context, rigs: [two.rigs[0]!] },
    );
    if (!r.ok || r.value.kind !== "light") throw new Error("not booked");
    expect(r.value.mismatches.map((m) => m.code)).toEqual(["camera", "binning"]);
    expect(r.value.data.at).toEqual({
      raDeg: facts.centre!.raDeg,
      decDeg: facts.centre!.decDeg,
      positionAngleDeg: facts.positionAngleDeg,
    });
    expect(bookExposure({ ...facts, pixelScaleArcsec: 0.4, focalLengthMm: 2000 }, context)).toMatchObject({ ok: false, error: { code: "noRig" } }); // prettier-ignore
  });
  it("reads filter names as people write them", () => {
    const names = {
      "Ha 3nm / narrow": "Ha",
      OIII: "OIII",
      "O3 6.5nm": "OIII",
      "S-II": "SII",
      Luminance: "L",
      "L'": "L",
      red: "R",
      "L-Ext": "Dual",
      "H-alpha": "Ha",
      "ha 5 NM": "Ha",
      B: "B",
      whatever: null,
    };
    for (const [name, channel] of Object.entries(names)) expect(channelOfFilter(name, filters), name).toBe(channel);
  });
  it("knows a file again by its header, renamed or not, and tells two exposures apart", () => {
    expect(fileIdentity({ ...facts, fileName: "renamed.fits" })).toEqual(fileIdentity(facts));
    // With its data summed up neither a solution nor another size makes it another, and another second of noise does.
    const summed = { ...facts, dataSum: "a" };
    expect(fileIdentity({ ...summed, sizeBytes: 7, fileName: "x" }).own).toBe(fileIdentity(summed).own);
    expect(fileIdentity({ ...summed, dataSum: "b" }).own).not.toBe(fileIdentity(summed).own);
    expect(fileIdentity(summed).before).toBe(fileIdentity(facts).own);
    const files = Array.from({ length: 19 }, (_, i) => `light_${String(i + 1).padStart(2, "0")}.fits`);
    const ids = files.map((name) => {
      const bytes = new Uint8Array(readFileSync(new URL(`../../../reference/tables/fits/${name}`, import.meta.url)));
      const header = readFitsHeader(bytes, bytes.length);
      if (!header.ok) throw new Error(name);
      return fileIdentity(exposureFactsOf(header.value, { name, sizeBytes: bytes.length })).own;
    });
    expect(new Set(ids).size).toBe(19);
  });
});

describe("the loom", () => {
  const c = (panel: string, taken: number, kept: number, exposureSec: number): ContributionData => ({
    projectId: "p",
    panel,
    channel: "Ha",
    night: "2026-12-05",
    memberId: "me",
    rigId: "r",
    placeId: "pl",
    exposureSec,
    taken,
    kept,
    reason: kept < taken ? "cloud" : "",
    worthRate: 0.5,
    startMs: null,
    fileName: "",
    note: "",
  });
  const counts = (bestRates: Partial<Record<"Ha" | "L", number>>) => (log: readonly ContributionData[]) =>
    countedEntries(log, { bestRates, hourIs: () => 1, panelsOf: (e) => [{ panel: e.panel, share: 1 }] });
  const inFull = (log: readonly ContributionData[]) => counts({})(log.map((e) => ({ ...e, worthRate: null })));
  const numbered = (count: number) => Array.from({ length: count }, (_, i) => ({ number: i + 1 }));
  it("adds up 5 panels × 60 subs × 120 s to 10 h and 28 × 300 s to 2 h 20 (common practice, no source)", () => {
    const five = ["P1", "P2", "P3", "P4", "P5"].map((p) => c(p, 60, 60, 120));
    expect(loomOf(goals.channels, numbered(5), inFull(five)).reduce((s, x) => s + x.keptMin, 0)).toBe(600);
    expect(countedByCell(inFull([c("P1", 28, 28, 300)]), goals.channels).get("P1 Ha")).toBe(140);
  });
  it("tells a short set from the long subs of one channel by the nearer length, and loses no minute (law)", () => {
    const two = [
      { channel: "Ha" as const, filterId: "f", hoursPerPanel: 4, subSec: 300 },
      { channel: "Ha" as const, filterId: "f", hoursPerPanel: 0.5, subSec: 10, isShort: true },
    ];
    const log = [c("P1", 12, 12, 300), c("P1", 30, 30, 10), c("P1", 4, 4, 240), c("P1", 6, 6, 20)];
    const loom = loomOf(two, numbered(1), inFull(log));
    expect(loom.map((x) => [x.isShort, x.goalMin, x.keptMin])).toEqual([
      [false, 240, 76],
      [true, 30, 7],
    ]);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 900 }), { maxLength: 30 }), (lengths) => {
        const list = lengths.map((sec) => c("P1", 3, 3, sec));
        const kept = [...countedByCell(inFull(list), two).values()].reduce((sum, m) => sum + m, 0);
        expect(kept).toBeCloseTo(
          lengths.reduce((sum, sec) => sum + (3 * sec) / 60, 0),
          6,
        );
      }),
    );
  });
  it("learns from the log what every sub loses and how many are spoilt, and says nothing from too little", () => {
    const start = Date.parse("2026-12-05T20:00:00Z");
    const files = Array.from({ length: 120 }, (_, i) => ({
      ...c("P1", 1, i % 20 === 0 ? 0 : 1, 120),
      startMs: start + i * 131_000, // 11 s between subs
    }));
    const learnt = learntTime(files);
    expect(learnt.overheadSec).toBeCloseTo(11, 9);
    expect(learnt.spoiltPerSec).toBeCloseTo(0.05 / 120, 12);
    expect(learntTime(files.slice(0, 10))).toMatchObject({ spoiltPerSec: null, overheadSec: null });
    expect(learntTime([c("P1", 200, 150, 60)])).toMatchObject({ spoiltPerSec: 0.25 / 60, overheadSec: null });
  });
  it("keeps taken, kept and what counts apart, and shows work outside the goals", () => {
    const log = [c("P1", 21, 19, 300), { ...c("P7", 4, 4, 60), channel: "L" as const }];
    // Entries of worth 0.5 at a target whose best here is 0.8: 5/8 of a minute each.
    const loom = loomOf(goals.channels, numbered(1), counts({ Ha: 0.8 })(log));
    expect(loom[0]).toMatchObject({ panel: "P1", goalMin: 240, takenMin: 105, keptMin: 95 });
    expect(loom[0]!.countedMin).toBeCloseTo(95 * 0.625, 9);
    expect(loom[0]!.share).toBeCloseTo((95 * 0.625) / 240, 9);
    expect(loom[1]).toMatchObject({ panel: "P7", channel: "L", goalMin: 0, keptMin: 4 });
  });
  it("gives the same totals in whatever order contributions come", () => {
    const one = fc.record({
      panel: fc.constantFrom("P1", "P2"),
      taken: fc.integer({ min: 1, max: 40 }),
      lost: fc.integer({ min: 0, max: 40 }),
      sec: fc.constantFrom(60, 120, 300),
    });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 20 }), (list) => {
        const contributions = list.map((x) => c(x.panel, x.taken, Math.max(0, x.taken - x.lost), x.sec));
        const sum = (all: readonly ContributionData[]) =>
          nightTotals(all.map((data) => ({ data }))).map((t) => [t.panel, t.exposureSec, t.taken, t.kept]);
        expect(sum([...contributions].reverse())).toEqual(sum(contributions));
        expect(nightTotals(contributions.map((data) => ({ data }))).reduce((s, t) => s + t.kept, 0)).toBe(
          contributions.reduce((s, x) => s + x.kept, 0),
        );
      }),
    );
  });
});

describe("what a kept minute counts", () => {
  const entry = (worthRate: number | null, more: object = {}) =>
    ({ channel: "Ha", worthRate, panel: "P1", kept: 1, exposureSec: 60, ...more }) as unknown as ContributionData;
  const all = [{ panel: "P1", share: 1 }];
  const of = (log: readonly ContributionData[], rules: Partial<CountRules> = {}) =>
    countedEntries(log, { bestRates: { Ha: 0.25 }, hourIs: () => 1, panelsOf: () => all, ...rules });
  it("is its worth over the best there is, never more than itself, and itself where nobody knows", () => {
    expect(of([0.25, 0.125, 0.5, null].map((w) => entry(w))).map((e) => e.countedMin)).toEqual([1, 0.5, 1, 1]);
    expect(of([entry(0.3)], { bestRates: {} })[0]!.countedMin).toBe(1);
  });
  it("is as much more under a darker sky, and as little as it covers of a panel; what is of no panel is not of this picture", () => {
    const darker = { hourIs: () => 2.512 };
    expect(of([entry(0.25), entry(0.125), entry(null)], darker).map((e) => e.countedMin)).toEqual([
      2.512, 1.256, 2.512,
    ]);
    const tight = of([entry(0.25, { kept: 94, exposureSec: 3600 })], {
      panelsOf: () => [{ panel: "P1", share: 0.16 }],
    });
    expect(tight[0]!.countedMin / 60).toBeCloseTo(15.04, 9);
    expect(of([entry(0.25)], { panelsOf: () => [] })).toEqual([]);
  });
  it("is told once for each panel it lies over, its subs with the first only: nothing taken is doubled (law)", () => {
    const share = fc.double({ min: 0.02, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.array(share, { minLength: 1, maxLength: 6 }), fc.integer({ min: 1, max: 99 }), (shares, kept) => {
        const over = shares.map((s, i) => ({ panel: `P${i + 1}`, share: s }));
        const counted = of([entry(null, { kept, taken: kept })], { panelsOf: () => over });
        expect(counted.reduce((s, e) => s + e.kept, 0)).toBe(kept);
        expect(counted.map((e) => e.panel)).toEqual(over.map((o) => o.panel));
        expect(counted.reduce((s, e) => s + e.countedMin, 0)).toBeCloseTo(kept * shares.reduce((s, x) => s + x, 0), 6);
      }),
    );
  });
});

describe("hours collected", () => {
  it("grow night by night, whatever the order of the log, to the sum of what was kept (law)", () => {
    const entry = fc.record({
      night: fc.integer({ min: 1, max: 28 }).map((d) => `2026-11-${String(d).padStart(2, "0")}`),
      kept: fc.integer({ min: 0, max: 40 }),
      exposureSec: fc.constantFrom(60, 120, 300),
    });
    fc.assert(
      fc.property(fc.array(entry, { maxLength: 60 }), (list) => {
        const log = list.map((e) => ({ ...e, countedMin: (e.kept * e.exposureSec) / 60 })) as unknown as CountedEntry[];
        const grown = collectedByNight(log);
        expect(collectedByNight([...log].reverse())).toEqual(grown);
        expect(grown.map((g) => g.night)).toEqual([...new Set(grown.map((g) => g.night))].sort());
        expect(grown.every((g, i) => i === 0 || g.countedMin > grown[i - 1]!.countedMin)).toBe(true);
        expect(grown.at(-1)?.countedMin ?? 0).toBeCloseTo(
          list.reduce((s, c) => s + (c.kept * c.exposureSec) / 60, 0),
          6,
        );
      }),
    );
  });
});

describe("what the sky truly was", () => {
  const look = (iso: string, isClear: boolean, placeId = "yard") => ({ placeId, memberId: "m", atMs: Date.parse(iso), isClear }); // prettier-ignore
  const shot = (night: string, kept: number, reason: "" | "cloud" | "wind", startMs: number | null = null) =>
    ({ placeId: "yard", night, kept, taken: 10, reason, startMs }) as unknown as ContributionData;
  const yard = { id: "yard", longitudeDeg: 2, timeZone: "Europe/Paris" };
  it("is known hour by hour from looks and exposures; wind says nothing of cloud", () => {
    const all = skyOutcomes(
      "yard",
      [look("2026-12-05T21:10:00Z", false), look("2026-12-05T22:00:00Z", true, "elsewhere")],
      [
        shot("2026-12-05", 8, "", Date.parse("2026-12-05T20:00:00Z")),
        shot("2026-12-05", 0, "cloud", Date.parse("2026-12-05T23:00:00Z")),
        shot("2026-12-05", 0, "wind", Date.parse("2026-12-06T01:00:00Z")),
        shot("2026-12-05", 4, ""),
      ],
    );
    expect(all.map((o) => o.isClear)).toEqual([true, false, false]);
  });
  it("makes a night clear by kept subs or by most looks, and leaves nights without an entry out", () => {
    const nights = nightOutcomes(
      yard,
      [
        look("2026-12-01T22:00:00Z", true),
        look("2026-12-02T01:00:00Z", false), // after midnight: still the night of the 1st
        look("2026-12-03T20:00:00Z", false),
      ],
      [shot("2026-12-05", 3, "cloud"), shot("2026-12-06", 0, "cloud"), shot("2026-12-07", 0, "wind")],
    );
    expect(nights.map((n) => `${n.night} ${n.isClear}`).sort()).toEqual([
      "2026-12-01 true",
      "2026-12-03 false",
      "2026-12-05 true",
      "2026-12-06 false",
    ]);
  });
});
