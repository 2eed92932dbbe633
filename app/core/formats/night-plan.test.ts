import { Ajv2020 } from "ajv/dist/2020.js";
import formats from "ajv-formats";
import { AngleBetween, AstroTime, Body, DefineStar, Equator, Horizon, Observer } from "astronomy-engine";
import fc from "fast-check";
import { readFileSync } from "node:fs";
import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import type { Block, SheetEvent } from "~/core/night";
import { nightSky, nightWindow } from "~/core/sky";
import { addMs, HOUR_MS, MINUTE_MS, nightDate, utcMs } from "~/core/time";
import { nightPlan, nightPlanCsv, type BlockAim, type NightPlanLine } from "./night-plan";

const ajv = new Ajv2020({ allErrors: true, strict: false });
formats(ajv);
const isNight = ajv.compile(JSON.parse(readFileSync("docs/night.schema.json", "utf8")) as object);

const night = nightDate("2026-12-05");
const place = { name: "Test yard", latitudeDeg: 45, longitudeDeg: 5, elevationM: 200, timeZone: "Europe/Paris" };
const sky = nightSky(place, nightWindow(place, night));
const T0 = utcMs(Date.UTC(2026, 11, 5, 18));
const block = (from: number, to: number, of: Partial<Block> = {}): Block => ({
  kind: "block", startMs: addMs(T0, from * MINUTE_MS), endMs: addMs(T0, to * MINUTE_MS), projectId: "p", panel: "P1 the arch", channel: "Ha", filterName: "Ha 5 nm", subs: 12, subSec: 300, stage: 0, ...of,
}); // prettier-ignore
const aim: BlockAim = { target: "Sh2-216", project: "Three gardens", centre: { frame: "icrs", raDeg: 71.0104, decDeg: 46.8208 }, cameraAngleDeg: 359.999 }; // prettier-ignore
const planOf = (lines: readonly (Block | SheetEvent)[], aimOf: (b: Block) => BlockAim | null = () => aim) =>
  nightPlan({ night, writtenAt: "2026-12-05T16:40:00.000Z", place, rig: { name: "Refractor", ditherEvery: 3 }, lines, sky, aimOf }); // prettier-ignore
const exposures = (line: NightPlanLine | undefined) => {
  if (line?.kind !== "exposures") throw new Error("no exposures");
  return line;
};

describe("an evening for other programs", () => {
  it("is what its published schema says, whatever is on the sheet, by an independent validator (Ajv; law)", () => {
    const line = fc.record({
      from: fc.integer({ min: -30, max: 600 }),
      min: fc.integer({ min: 1, max: 200 }),
      kind: fc.constantFrom<"block" | SheetEvent["kind"]>("block", "setUp", "align", "centre", "filter", "focus", "flip", "wait", "packUp"), // prettier-ignore
      subs: fc.integer({ min: 1, max: 900 }),
      subSec: fc.constantFrom(0.5, 30, 300, 900),
      words: fc.string({ maxLength: 30 }),
      isGone: fc.boolean(),
      raDeg: fc.double({ min: 0, max: 360, maxExcluded: true, noNaN: true }),
      decDeg: fc.double({ min: -90, max: 90, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(line, { maxLength: 12 }), (list) => {
        const lines = list.map(
          (l): Block | SheetEvent =>
          l.kind === "block"
            ? block(l.from, l.from + l.min, { subs: l.subs, subSec: l.subSec, panel: l.words, filterName: l.words })
            : { kind: l.kind, startMs: addMs(T0, l.from * MINUTE_MS), endMs: addMs(T0, (l.from + l.min) * MINUTE_MS), detail: l.words }, // prettier-ignore
        );
        const gone = new Map(lines.map((l, i) => [l, list[i]!]));
        const plan = planOf(lines, (b) => {
          const { isGone, raDeg, decDeg, words } = gone.get(b)!;
          return isGone ? null : { ...aim, project: words, centre: { frame: "icrs", raDeg, decDeg } };
        });
        expect(isNight(JSON.parse(JSON.stringify(plan))), JSON.stringify(isNight.errors?.slice(0, 3))).toBe(true);
        expect(plan.lines.map((l) => l.startUtc)).toEqual(plan.lines.map((l) => l.startUtc).sort());
        const table = Papa.parse<Record<string, string>>(nightPlanCsv(plan), { header: true });
        expect(table.data.filter((r) => r["start_utc"]).length).toBe(lines.filter((l) => l.kind === "block").length);
      }),
    );
  });

  it("says how the target and the Moon stand, as an independent ephemeris has them (astronomy-engine's own chain)", () => {
    const { atStart } = exposures(planOf([block(60, 120)]).lines[0]);
    const [time, observer] = [new AstroTime(new Date(T0 + HOUR_MS)), new Observer(45, 5, 200)];
    const moon = Equator(Body.Moon, time, observer, true, true);
    const moonAt = Horizon(time, observer, moon.ra, moon.dec);
    expect(atStart!.moonAltitudeDeg).toBeCloseTo(moonAt.altitude, 1);
    DefineStar(Body.Star1, aim.centre.raDeg / 15, aim.centre.decDeg, 10_000);
    const star = Equator(Body.Star1, time, observer, true, true);
    const starAt = Horizon(time, observer, star.ra, star.dec);
    expect([atStart!.altitudeDeg, atStart!.azimuthDeg]).toEqual([expect.closeTo(starAt.altitude, 1), expect.closeTo(starAt.azimuth, 1)]); // prettier-ignore
    expect(atStart!.moonSeparationDeg).toBeCloseTo(AngleBetween(star.vec, moon.vec), 1);
    expect(atStart!.airmass!).toBeCloseTo(1 / Math.sin((atStart!.altitudeDeg * Math.PI) / 180), 1);
  });

  it("tells the hour that comes twice apart by its offset, and writes positions as mounts take them", () => {
    const back = utcMs(Date.UTC(2026, 9, 25, 0, 30)); // 02:30 in summer time; an hour later it is 02:30 again
    const plan = planOf([
      block(0, 0, { startMs: back, endMs: addMs(back, HOUR_MS) }),
    ], () => null); // prettier-ignore
    const line = exposures(plan.lines[0]);
    expect([line.startLocal, line.endLocal]).toEqual(["2026-10-25T02:30:00+02:00", "2026-10-25T02:30:00+01:00"]);
    const there = exposures(planOf([block(0, 60)]).lines[0]);
    expect([there.raJ2000, there.decJ2000, there.cameraAngleDeg]).toEqual(["04 44 02.50", "+46 49 14.9", 0]);
  });

  it("as a table hides no formula in a name", () => {
    const table = nightPlanCsv(planOf([block(0, 60)], () => ({ ...aim, project: "=1+1" })));
    expect(table).toContain("'=1+1");
    expect(table.split("\r\n")).toHaveLength(2);
  });
});
