import { readFileSync, readdirSync } from "node:fs";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { exposureFactsOf, readFitsHeader } from "~/core/formats";
import { ok } from "~/core/result";
import type { ContributionData } from "~/core/ledger";
import { nightDate, utcMs } from "~/core/time";
import type { Library } from "~/desk/records/library";
import type { ReadFile } from "~/workers/files";
import { choiceOf, keptSearch } from "~/desk/sky/choice";
import { demoDesk, demoLibrary } from "~/desk/demo-library.test-data";
import { intake } from "./intake";
import { factsOf, keepFacts } from "./night-facts";
import { memoryBrowser, testDesk } from "~/desk/desk.test-data";
import { contextOf, requireContext } from "~/desk/projects/project";

const desk = demoDesk();
const library = demoLibrary(desk);
beforeEach(() => desk.setNow("2026-12-05T16:40:00Z"));

/** The sample exposures that ship with the demo, as the file worker reads them. */
const samples: ReadFile[] = readdirSync("public/demo")
  .filter((f) => f.endsWith(".fits"))
  .sort()
  .map((name) => {
    const bytes = new Uint8Array(readFileSync(`public/demo/${name}`));
    const header = readFitsHeader(bytes, bytes.length);
    if (!header.ok) throw new Error(name);
    return { name, facts: ok(exposureFactsOf(header.value, { name, sizeBytes: bytes.length })) };
  });

describe("the choice an address makes", () => {
  const choice = (search: string, of: Library = library) => choiceOf(of, new URLSearchParams(search));
  it("takes place, rig and night from the settings and the clock when the address is silent", () => {
    const c = choice("");
    expect([c.place?.id, c.rig?.id, c.night, c.today]).toEqual([
      "place-garden",
      "rig-refractor",
      "2026-12-05",
      "2026-12-05",
    ]);
  });
  it("lets the address decide, and refuses what does not exist", () => {
    const c = choice("place=place-pass&rig=rig-newtonian&night=2027-02-01");
    expect([c.place?.id, c.rig?.id, c.night, c.today]).toEqual([
      "place-pass",
      "rig-newtonian",
      "2027-02-01",
      "2026-12-05",
    ]);
    const refusal = (search: string) => {
      try {
        choice(search);
        return null;
      } catch (thrown) {
        const { data, init } = thrown as { data: { code: string }; init: { status: number } };
        return [data.code, init.status];
      }
    };
    expect([refusal("place=nowhere"), refusal("rig=none"), refusal("night=2026-02-30")]).toEqual([
      ["unknownPlace", 404],
      ["unknownRig", 404],
      ["badNight", 400],
    ]);
  });
  it("holds on to the night that is ending until four hours before the Sun’s noon", () => {
    const at = (iso: string) => {
      desk.setNow(iso);
      return choice("").today;
    };
    expect([at("2026-12-06T06:30:00Z"), at("2026-12-06T08:30:00Z")]).toEqual(["2026-12-05", "2026-12-06"]); // 07:30 and 08:30 in Paris
  });
  it("has no place to offer an empty library", () => {
    const empty: Library = { ...library, places: [], rigs: [], settings: null };
    expect([choice("", empty).place, choice("", empty).rig]).toEqual([null, null]);
  });
  it("passes night, place and rig along, and nothing else", () => {
    const params = new URLSearchParams("night=2026-12-06&project=x&place=p");
    expect([
      keptSearch(params),
      keptSearch(params, { night: "2027-01-01" }),
      keptSearch(new URLSearchParams()),
    ]).toEqual(["?night=2026-12-06&place=p", "?night=2027-01-01&place=p", ""]);
  });
});

describe("a project put together", () => {
  it("has its panels, what is left to do, and only its own log", () => {
    const c = requireContext(library, "project-loop");
    expect(c.panels).toHaveLength(6);
    expect(c.contributions.every((x) => x.data.projectId === "project-loop")).toBe(true);
    const p5 = c.needs.find((n) => n.panel === "P5" && n.channel === "OIII")!;
    // 10 × 300 s kept in October: an hour kept is an hour, whatever its light was; by light it is what MATHS C6.4 says, 0.97 at 77°.
    const kept = c.contributions.filter((x) => x.data.panel === "P5" && x.data.channel === "OIII");
    expect(kept.reduce((s, x) => s + (x.data.kept * x.data.exposureSec) / 60, 0)).toBe(50);
    expect(p5.goalMin).toBe(150);
    expect(p5.remainingMin).toBe(100);
    const byLight = {
      ...library,
      projects: library.projects.map((p) => ({ ...p, data: { ...p.data, hours: "light" as const } })),
    };
    const light = requireContext(byLight, "project-loop").needs.find((n) => n.panel === "P5" && n.channel === "OIII")!;
    expect(light.remainingMin).toBeCloseTo(150 - (50 * kept[0]!.data.worthRate!) / 0.97, 0);
    expect(c.filters.map((f) => f.data.channel)).toEqual(["L", "R", "G", "B", "Ha", "OIII"]);
  });
  it("cannot be without its rig, its place or its frame", () => {
    expect(contextOf({ ...library, rigs: [] }, "project-loop")).toBeNull();
    expect(contextOf({ ...library, frames: [] }, "project-loop")).toBeNull();
    expect(contextOf(library, "project-nowhere")).toBeNull();
    expect(() => requireContext(library, "project-nowhere")).toThrow();
  });
});

describe("dropped files", () => {
  // The morning after the samples were taken.
  beforeEach(() => {
    vi.useFakeTimers({ toFake: ["Date"], now: Date.parse("2026-12-05T09:00:00Z") });
  });
  afterEach(() => {
    vi.useRealTimers();
  });
  it("from a night to come are refused by name: a clock that is days or years ahead tells nothing", () => {
    const [first] = samples;
    const ahead = (ms: number) => samples.slice(0, 1).map((s) => (s.facts.ok ? { ...s, facts: ok({ ...s.facts.value, startMs: utcMs(s.facts.value.startMs! + ms) }) } : s)); // prettier-ignore
    expect(intake(library, ahead(10 * 3_600_000)).edits).toHaveLength(1); // hours off are another question
    const { edits, report } = intake(library, ahead(4 * 86_400_000));
    expect(edits).toEqual([]);
    expect(report.refused).toEqual([{ name: first!.name, why: { kind: "outOfRange", message: "taken on 2026-12-08, which is still to come" } }]); // prettier-ignore
  });
  it("of three nights and two cameras, one clock of one night three hours slow: that session alone is offered, and moved", () => {
    const HOUR = 3_600_000;
    const [sample] = samples;
    if (!sample?.facts.ok) throw new Error("no sample");
    const facts = sample.facts.value;
    const file = (camera: string, iso: string, i: number, ahead = 0): ReadFile => {
      const startMs = utcMs(Date.parse(iso) + i * 0.25 * HOUR + ahead * HOUR);
      return {
        name: `${camera} ${iso} ${i}`,
        facts: ok({ ...facts, camera, startMs, fileName: `${camera} ${iso} ${i}.fits` }),
      };
    };
    // From 17:45 UTC on, dark over the garden in early December; twenty quarters of an hour.
    const nights = ["2026-12-01", "2026-12-02", "2026-12-03"].map((d) => `${d}T17:45:00Z`);
    const lights = (camera: string, isSlow: (night: number) => boolean) =>
      nights.flatMap((iso, n) => Array.from({ length: 20 }, (_, i) => file(camera, iso, i, isSlow(n) ? -3 : 0)));
    const files = [...lights("Mono-26", (n) => n === 1), ...lights("Mono-43", () => false)];
    const { report } = intake(library, files);
    expect(report.clocks).toEqual([
      expect.objectContaining({
        camera: "Mono-26",
        files: 20,
        lights: 20,
        hours: -3,
        isPutRight: false,
        zone: "Europe/Paris",
      }),
    ]);
    const [clock] = report.clocks;
    expect([clock!.firstMs, clock!.lastMs].map((ms) => new Date(ms).toISOString())).toEqual(["2026-12-02T14:45:00.000Z", "2026-12-02T19:30:00.000Z"]); // prettier-ignore
    expect(clock!.lit).toBeGreaterThan(3);
    expect(clock!.lit).toBeLessThan(20);
    expect(clock!.sunDeg).toBeGreaterThan(5);
    const startsOf = (edits: readonly { readonly data: unknown }[]) =>
      edits.map((e) => (e.data as { startMs: number }).startMs);
    const moved = intake(library, files, { putRight: { [clock!.session]: -3 } });
    const [before, after] = [startsOf(intake(library, files).edits), startsOf(moved.edits)];
    expect(after.filter((ms, i) => ms !== before[i])).toEqual(before.slice(20, 40).map((ms) => ms + 3 * HOUR));
    expect(moved.report.clocks).toEqual([{ ...clock!, isPutRight: true }]);
  });
  it("of a clock without a zone are dated by the place's: what is told of a wrong one is in the same time as the rest", () => {
    const [sample] = samples;
    if (!sample?.facts.ok) throw new Error("no sample");
    const { value } = sample.facts;
    // 15:10 on the clock, an hour ahead of UTC in Paris in winter.
    const files: ReadFile[] = [0, 1, 2].map((i) => {
      const wallMs = Date.parse(`2026-12-04T1${5 + i}:10:00Z`);
      return { name: `w${i}`, facts: ok({ ...value, startMs: null, wallMs, fileName: `w${i}` }) };
    });
    const { report } = intake(library, files);
    expect(report.clocks.map((c) => [new Date(c.firstMs).toISOString(), c.zone, c.lights])).toEqual([["2026-12-04T14:10:00.000Z", "Europe/Paris", 3]]); // prettier-ignore
  });
  it("that were solved or written anew since are the same subs; what they say of their stars is taken", () => {
    const { edits } = intake(library, samples);
    const stored: Library = {
      ...library,
      contributions: [...library.contributions, ...edits.map((e) => ({ id: e.id, rev: "r", author: "", data: e.data as never, copies: [] }))],
    }; // prettier-ignore
    const measure = { fwhmPx: 1.8, eccentricity: 0.4, stars: 90, background: 800, from: "header" as const };
    const anew = samples.map((s) => (s.facts.ok ? { ...s, facts: ok({ ...s.facts.value, sizeBytes: s.facts.value.sizeBytes + 2880, measure }) } : s)); // prettier-ignore
    const again = intake(stored, anew);
    expect([again.report.known, again.report.measured, again.report.booked]).toEqual([6, 6, []]);
    expect(again.edits.map((e) => e.id)).toEqual(edits.map((e) => e.id));
    expect(again.edits.every((e) => (e.data as { measure: unknown }).measure === measure)).toBe(true);
  });
  it("become one edit each, booked to panel 5 of the demo's mosaic with the worth of that night", () => {
    const { edits, report } = intake(library, samples);
    expect(edits).toHaveLength(6);
    expect(new Set(edits.map((e) => e.id)).size).toBe(6);
    expect(edits[0]!.data).toMatchObject({
      projectId: "project-loop",
      panel: "P5",
      channel: "OIII",
      night: "2026-12-04",
      memberId: "member-ines",
      rigId: "rig-refractor",
      exposureSec: 300,
      kept: 1,
    });
    const { worthRate } = edits[0]!.data as { worthRate: number };
    expect(worthRate > 0.2 && worthRate < 1).toBe(true); // a sinking target under a dark sky
    expect(report).toMatchObject({ total: 6, known: 0, refused: [], booked: [{ count: 6, notes: [] }] });
  });
  it("change nothing the second time, in the same drop or later, under whatever name", () => {
    const { edits } = intake(library, samples);
    const stored: Library = {
      ...library,
      contributions: [
        ...library.contributions,
        ...edits.map((e) => ({ id: e.id, rev: "", author: "", data: e.data as never, copies: [] })),
      ],
    };
    expect(intake(stored, samples).edits).toEqual([]);
    const renamed = samples.map((s) =>
      s.facts.ok ? { name: `copy of ${s.name}`, facts: ok({ ...s.facts.value, fileName: `copy of ${s.name}` }) } : s,
    );
    const twice = intake(library, [...samples, ...renamed]);
    expect([twice.edits.length, twice.report.known]).toEqual([6, 6]);
  });
  it("of one second are told apart by their data, and known again under any name, solved or not, also those of an edition without it", () => {
    const [sample] = samples;
    if (!sample?.facts.ok) throw new Error("no sample");
    const { value } = sample.facts;
    // Ten bias frames at five a second, by a clock of whole seconds (reported: two were kept).
    const bias: ReadFile[] = Array.from({ length: 10 }, (_, i) => ({
      name: `b${i}`,
      facts: ok({ ...value, frameType: "bias", exposureSec: 0, startMs: utcMs(value.startMs! + 1000 * Math.floor(i / 5)), fileName: `b${i}`, dataSum: `sum ${i}` }),
    })); // prettier-ignore
    const { edits } = intake(library, bias);
    expect(new Set(edits.map((e) => e.id)).size).toBe(10);
    const withFiles = (of: typeof edits): Library => ({
      ...library,
      calibrations: of.map((e) => ({ id: e.id, rev: "r", author: "", data: e.data as never, copies: [] })),
    });
    const change = (f: ReadFile, to: object): ReadFile => (f.facts.ok ? { ...f, facts: ok({ ...f.facts.value, ...to }) } : f); // prettier-ignore
    const renamed = bias.map((f) => change(f, { fileName: "x", sizeBytes: 99 }));
    expect(intake(withFiles(edits), renamed).report.known).toBe(10);
    // An edition before wrote two of them, one for each second: those are theirs, the others are new.
    const before = intake(library, bias.map((f) => change(f, { dataSum: undefined }))); // prettier-ignore
    expect(before.edits).toHaveLength(2);
    const later = intake(withFiles(before.edits), bias);
    expect([later.report.known, later.edits.length]).toEqual([2, 8]);
    const all = withFiles([...before.edits, ...later.edits]);
    expect(intake(all, [...bias].reverse()).report.known).toBe(10);
  });
  it("that cannot be are left out until somebody says that they are right", () => {
    const light = (change: Partial<ContributionData>) => ({ ...(intake(library, samples).edits[0]!.data as ContributionData), ...change }); // prettier-ignore
    const with_ = (...entries: ContributionData[]) => {
      const list = entries.map((data, i) => ({ id: `e${i}`, rev: "r", author: "", data, copies: [] }));
      return { ...library, contributions: list, log: { ...library.log, byNight: new Map([["2026-12-04", list]]) } } as Library; // prettier-ignore
    };
    const { startMs } = light({});
    for (const [code, stored, of] of [
      ["twiceAtOnce", with_(light({ startMs: startMs! - 100_000, exposureSec: 180 })), 1],
      ["longerThanNight", with_(light({ startMs: null, taken: 180 })), 6],
      [
        "beforeBegun",
        {
          ...library,
          projects: library.projects.map((p) => ({ ...p, data: { ...p.data, startedOn: nightDate("2026-12-05") } })),
        },
        6,
      ],
    ] as const) {
      // prettier-ignore
      const { report, edits } = intake(stored, samples);
      expect(report.doubts.map((d) => [d.why.code, d.count, d.isSure])).toEqual([[code, of, false]]);
      expect(edits).toHaveLength(6 - of);
      const sure = intake(stored, samples, { sure: [report.doubts[0]!.key] });
      expect(sure.edits).toHaveLength(6);
      expect(sure.report.doubts.map((d) => d.isSure)).toEqual([true]);
    }
  });
  it("that do not say where they point, of another telescope, are left out until confirmed (reported: one to add)", () => {
    const lost = samples.slice(0, 1).map((s) => (s.facts.ok ? { ...s, facts: ok({ ...s.facts.value, centre: null, object: null, isSolved: false, positionAngleDeg: null, pixelScaleArcsec: null, hints: [contextOf(library, "project-loop")!.project.data.name, "P5"], focalLengthMm: 1200, pixelPitchUm: 9 }) } : s)); // prettier-ignore
    const { report, edits } = intake(library, lost);
    expect(edits).toEqual([]);
    expect(report.doubts).toMatchObject([{ count: 1, why: { code: "stranger", mismatches: [{ code: "focalLength" }, { code: "pixels" }] } }]); // prettier-ignore
    expect(intake(library, lost, { sure: [report.doubts[0]!.key] }).edits).toHaveLength(1);
  });
  it("are named with the reason when they cannot be placed, and the rest goes on", () => {
    const astray = samples.map((s, i) =>
      i === 0 && s.facts.ok
        ? {
            ...s,
            facts: ok({
              ...s.facts.value,
              centre: { frame: "icrs", raDeg: 10, decDeg: -60 } as const,
              object: "Elsewhere",
            }),
          }
        : s,
    );
    const { edits, report } = intake(library, [
      ...astray,
      { name: "x.fits", facts: { ok: false, error: { code: "truncatedData" } } },
    ]);
    expect(edits).toHaveLength(5);
    expect(report.refused).toEqual([
      {
        name: samples[0]!.name,
        why: { kind: "unplaced", fault: { code: "noProject", found: "Elsewhere" } },
      },
      { name: "x.fits", why: { kind: "unreadable", code: "truncatedData" } },
    ]);
  });
  it("say when they do not agree with the plan", () => {
    const warm = samples
      .slice(0, 1)
      .map((s) => (s.facts.ok ? { ...s, facts: ok({ ...s.facts.value, temperatureC: 3, focalLengthMm: 384 }) } : s));
    expect(intake(library, warm).report.booked[0]!.notes).toEqual([
      { mismatch: { code: "focalLength", wanted: 480, found: 384 }, count: 1 },
      { mismatch: { code: "temperature", wanted: -10, found: 3 }, count: 1 },
    ]);
  });
});

describe("the facts of a night", () => {
  const of = (rigId: string | undefined, airC: number) => ({ night: "2026-12-04", placeId: "place", ...(rigId ? { rigId } : {}), airC, trouble: "", cure: "", note: "" }); // prettier-ignore
  const air = (from: Library, rigId: string) => factsOf(from, "place", "2026-12-04", rigId)?.data.airC;

  it("are each rig's own: written for a second one they stay with the first (reported: they were taken from it)", async () => {
    const d = testDesk({ browser: memoryBrowser() });
    for (const [rigId, airC] of [["refractor", 3], ["newtonian", 5]] as const) expect((await keepFacts(await d.library(), of(rigId, airC), null)).ok).toBe(true); // prettier-ignore
    const both = await d.library();
    expect([air(both, "refractor"), air(both, "newtonian"), air(both, "lens")]).toEqual([3, 5, undefined]);
    // Written anew they are changed, not doubled.
    await keepFacts(both, of("refractor", 4), factsOf(both, "place", "2026-12-04", "refractor")!.rev);
    const after = await d.library();
    expect([air(after, "refractor"), air(after, "newtonian"), after.nightFacts.length]).toEqual([4, 5, 2]);
  });
  it("that name no rig, as earlier editions wrote them, are those of the first rig they are written for", async () => {
    const d = testDesk({ browser: memoryBrowser() });
    await keepFacts(await d.library(), of(undefined, 1), null);
    const before = await d.library();
    expect(air(before, "refractor")).toBe(1);
    await keepFacts(before, of("refractor", 2), null);
    const after = await d.library();
    expect([air(after, "refractor"), air(after, "newtonian"), after.nightFacts.length]).toEqual([2, undefined, 1]);
  });
});
