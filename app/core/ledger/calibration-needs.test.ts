import { describe, expect, it } from "vitest";
import { DAY_MS } from "~/core/time";
import {
  calibrationNeeds,
  lastTrainChange,
  USUAL_CALIBRATION,
  type CalibratedCamera,
  type LightPlan,
} from "./calibration-needs";
import { shelfSets } from "./calibration-shelf";
import type { CalibrationData } from "./contribution";

const now = Date.UTC(2026, 11, 5);
const camera: CalibratedCamera = { cameraName: "Mono-26", isCooled: true, sensorC: -10 };
const frame = (type: CalibrationData["type"], more: Partial<CalibrationData> = {}): CalibrationData => ({ type, memberId: "m", camera: "Mono-26", exposureSec: 300, gain: 100, temperatureC: -10, filter: "", startMs: now - 30 * DAY_MS, fileName: "f", ...more }); // prettier-ignore
const many = (n: number, f: CalibrationData) => Array.from({ length: n }, () => f);
const ha: LightPlan = {
  channel: "Ha",
  filterName: "Ha 5 nm",
  subSec: 300,
  gain: 100,
  offset: null,
  binning: null,
  angleDeg: null,
};
const ask = (lights: readonly LightPlan[], frames: readonly CalibrationData[], more = {}) =>
  calibrationNeeds(lights, frames, { camera, school: USUAL_CALIBRATION, changed: null, nowMs: now, ...more });
const state = (needs: ReturnType<typeof ask>, kind: string) => needs.find((n) => n.kind === kind);

describe("darks", () => {
  it("serve when length, gain and temperature are the lights'; half a degree is as near as matters (MATHS 9.1)", () => {
    const of = (more: Partial<CalibrationData>) => state(ask([ha], many(30, frame("dark", more))), "dark")!.state;
    expect(of({})).toBe("serves");
    expect(of({ temperatureC: -9.6 })).toBe("serves");
    for (const other of [{ exposureSec: 180 }, { gain: 0 }, { temperatureC: -5 }, { camera: "Colour-71" }])
      expect(of(other)).toBe("missing");
    const set = (more: Partial<CalibrationData>) => state(ask([{ ...ha, offset: 30, binning: 1 }], many(30, frame("dark", more))), "dark")!.state; // prettier-ignore
    expect([set({ offset: 30, binning: 1 }), set({ offset: 50 }), set({ binning: 2 }), set({})]).toEqual(["serves", "missing", "missing", "serves"]); // prettier-ignore
    expect(of({ gain: null, temperatureC: null, camera: "" })).toBe("serves"); // headers that do not say
  });
  it("of a camera without a cooler are those of about the night's warmth", () => {
    const warm = { ...camera, isCooled: false, sensorC: 12 };
    const of = (temperatureC: number) => state(ask([ha], many(30, frame("dark", { temperatureC })), { camera: warm }), "dark")!.state; // prettier-ignore
    expect([of(9), of(20)]).toEqual(["serves", "missing"]);
  });
  it("are too few, or a year old, or wanted once for each length", () => {
    expect(state(ask([ha], many(12, frame("dark"))), "dark")).toMatchObject({ state: "few", have: 12, want: 30 });
    expect(state(ask([ha], many(30, frame("dark", { startMs: now - 400 * DAY_MS }))), "dark")).toMatchObject({ state: "old", spent: 30 }); // prettier-ignore
    const lengths = ask([ha, { ...ha, channel: "OIII", filterName: "OIII" }, { ...ha, subSec: 60 }], []);
    expect(lengths.filter((n) => n.kind === "dark").map((n) => n.exposureSec)).toEqual([300, 60]);
  });
});

describe("flats", () => {
  const flat = frame("flat", { exposureSec: 2.4, filter: "Ha 5 nm" });
  it("are wanted by filter, by its own name or its channel's, with dark flats of their length or bias", () => {
    expect(state(ask([ha], many(25, flat)), "flat")!.state).toBe("serves");
    expect(state(ask([ha], many(25, { ...flat, filter: "ha" })), "flat")!.state).toBe("serves");
    expect(state(ask([ha], many(25, { ...flat, filter: "OIII" })), "flat")!.state).toBe("missing");
    expect(state(ask([ha], many(25, flat)), "darkFlat")).toMatchObject({ exposureSec: 2.4, state: "missing" });
    expect(state(ask([ha], []), "darkFlat")).toMatchObject({ exposureSec: null, state: "missing" }); // as long as the flats to come
    const withBias = ask([ha], many(25, flat), { school: { ...USUAL_CALIBRATION, flatsBy: "bias" } });
    expect([state(withBias, "bias")!.state, state(withBias, "darkFlat")]).toEqual(["missing", undefined]);
  });
  it("are void after a turn, and those taken since then serve", () => {
    const changed = { atMs: now - 10 * DAY_MS, why: "angle" as const };
    expect(state(ask([ha], many(25, flat), { changed }), "flat")).toMatchObject({ state: "void", spent: 25, have: 0, since: changed }); // prettier-ignore
    expect(state(ask([ha], many(25, { ...flat, startMs: now - 70 * DAY_MS })), "flat")).toMatchObject({
      state: "old",
      spent: 25,
    }); // dust moves
    const since = { ...flat, startMs: now - 9 * DAY_MS };
    expect(state(ask([ha], [...many(25, flat), ...many(25, since)], { changed }), "flat")!.state).toBe("serves");
  });
});

describe("flats by camera angle", () => {
  const flat = frame("flat", { exposureSec: 2.4, filter: "Ha 5 nm", positionAngleDeg: 44 });
  it("are void at another angle, half a turn is the same; those that do not say serve", () => {
    const of = (angleDeg: number | null, f = flat) => state(ask([{ ...ha, angleDeg }], many(25, f)), "flat")!;
    expect([of(44.6).state, of(224).state, of(null).state, of(90, { ...flat, positionAngleDeg: undefined as never }).state]).toEqual(["serves", "serves", "serves", "serves"]); // prettier-ignore
    expect(of(90)).toMatchObject({ state: "void", spent: 25, since: null, angleDeg: 90 });
  });
  it("are wanted once for each angle at which a filter is used", () => {
    const needs = ask(
      [
        { ...ha, angleDeg: 44 },
        { ...ha, angleDeg: 44.5 },
        { ...ha, angleDeg: 120 },
      ],
      many(25, flat),
    );
    expect(needs.filter((n) => n.kind === "flat").map((n) => [n.angleDeg, n.state])).toEqual([[44, "serves"], [120, "void"]]); // prettier-ignore
  });
});

describe("the optical train", () => {
  const light = (day: number, positionAngleDeg: number | null) => ({ startMs: now + day * DAY_MS, at: { raDeg: 1, decDeg: 1, positionAngleDeg } }); // prettier-ignore
  it("was turned where the camera angle is off by more than a degree; half a turn is the same picture", () => {
    expect(lastTrainChange([light(1, 80), light(2, 80.6), light(3, 260.4)], [])).toBeNull();
    expect(lastTrainChange([light(3, 95), light(1, 80)], [])).toEqual({ atMs: now + 2.5 * DAY_MS, why: "angle" });
    expect(lastTrainChange([light(1, null), { startMs: null }], [])).toBeNull();
  });
  it("was changed when somebody wrote so down, whichever came last", () => {
    const facts = [{ startMs: now + 5 * DAY_MS, train: ["cleaned" as const] }, { startMs: now }];
    expect(lastTrainChange([light(1, 80), light(3, 95)], facts)).toEqual({ atMs: now + 5 * DAY_MS, why: "cleaned" });
    expect(lastTrainChange([light(6, 80), light(9, 95)], facts)).toMatchObject({ why: "angle" });
  });
});

it("the shelf is told by sets of like frames", () => {
  const sets = shelfSets([...many(3, frame("dark")), frame("dark", { temperatureC: -9.8, startMs: now }), frame("dark", { gain: 0 }), frame("bias", { exposureSec: 0, startMs: null })]); // prettier-ignore
  expect(sets.map((s) => [s.type, s.count, s.latestMs])).toEqual([["bias", 1, null], ["dark", 4, now], ["dark", 1, now - 30 * DAY_MS]]); // prettier-ignore
});

it("nothing is needed for nothing", () => {
  expect(ask([], many(3, frame("dark")))).toEqual([]);
});
