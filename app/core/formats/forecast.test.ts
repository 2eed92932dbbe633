import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { nightWindow } from "~/core/sky";
import { HOUR_MS, nightDate, utcMs } from "~/core/time";
import { readForecast, readTypedForecast } from ".";

const PARIS = { longitudeDeg: 1.9, timeZone: "Europe/Paris" };
const NOW = utcMs(Date.parse("2026-12-05T16:40:00Z"));
const here = { nowMs: NOW, latitudeDeg: 43.6, longitudeDeg: 1.9 };
const iso = (h: number) => new Date(Date.parse("2026-12-05T16:00:00Z") + h * HOUR_MS).toISOString();

/** A well-formed file of four hours, with changes. */
const file = (change: Record<string, unknown> = {}) => ({
  format: "zenithar-forecast",
  version: 1,
  source: { id: "test", name: "Test model" },
  place: { latitude: 43.6, longitude: 1.9 },
  issued: "2026-12-05T12:00:00Z",
  units: { low_type_cloud_area_fraction: "1", air_temperature: "degC", relative_humidity: "%", wind_speed_of_gust: "km h-1" },
  time: [0, 1, 2, 3].map(iso),
  low_type_cloud_area_fraction: [0.1, 0.2, 0.3, 0.4],
  air_temperature: [5, 4, 3, 2],
  relative_humidity: [70, 75, 80, 85],
  wind_speed_of_gust: [18, 36, 18, 18],
  ...change,
}); // prettier-ignore
const read = (change: Record<string, unknown> = {}) => {
  const r = readForecast(JSON.stringify(file(change)), here);
  if (!r.ok) throw new Error(`${r.error.code}: ${r.error.found}`);
  return r.value;
};
const notes = (change: Record<string, unknown>) => read(change).notes.map((n) => [n.code, n.variable, n.count]);

describe("a forecast file", () => {
  it("comes out hour by hour in the units of the core", () => {
    const f = read();
    expect(f.notes).toEqual([]);
    expect(f.hours.map((h) => h.lowCloud)).toEqual([0.1, 0.2, 0.3, 0.4]);
    expect(f.hours[1]).toMatchObject({ airC: 4, humidity: 0.75, gustMs: 10, dewC: null });
    expect(f.hours[0]!.issuedMs).toBe(Date.parse("2026-12-05T12:00:00Z"));
  });
  it("takes other usual units: kelvin, percent, m/s", () => {
    const f = read({
      units: { low_type_cloud_area_fraction: "%", air_temperature: "K", relative_humidity: "1", wind_speed_of_gust: "m s-1" },
      low_type_cloud_area_fraction: [10, 20, 30, 40], air_temperature: [278.15, 277, 276, 275], relative_humidity: [0.7, 0.7, 0.7, 0.7], wind_speed_of_gust: [5, 5, 5, 5],
    }); // prettier-ignore
    expect([f.hours[0]!.lowCloud, f.hours[0]!.airC, f.hours[0]!.gustMs]).toEqual([0.1, 5, 5]);
  });
  it("leaves out what is no number or impossible, says so, and keeps the rest", () => {
    const f = read({ air_temperature: [5, null, "warm", 2], relative_humidity: [70, 180, 80, 85] });
    expect(f.notes.map((n) => [n.code, n.variable, n.count])).toEqual([
      ["outOfRange", "relative_humidity", 1],
      ["notANumber", "air_temperature", 2],
    ]);
    expect(f.hours.map((h) => h.airC)).toEqual([5, null, null, 2]);
    expect(f.hours.map((h) => h.humidity)).toEqual([0.7, null, 0.8, 0.85]);
  });
  it("takes a bare NaN, which is no JSON, as a value that is missing", () => {
    const text = JSON.stringify(file()).replace("[5,4,3,2]", "[5,NaN,3,-Infinity]");
    const r = readForecast(text, here);
    expect(r.ok && r.value.notes[0]).toMatchObject({ code: "notANumber", count: 2 });
  });
  it("leaves out a variable in a unit nobody knows, or of another length", () => {
    const units = { ...file().units, air_temperature: "furlong" };
    expect(notes({ units })).toEqual([["unknownUnit", "air_temperature", 4]]);
    expect(notes({ air_temperature: [1, 2] })).toEqual([["wrongLength", "air_temperature", 2]]);
    expect(notes({ units: { ...file().units, air_temperature: "constructor" } })).toEqual([["unknownUnit", "air_temperature", 4]]); // prettier-ignore
  });
  it("notes hours that are missing, doubled, no times, or already over", () => {
    expect(notes({ time: [iso(0), iso(1), iso(4), iso(5)] })).toEqual([["missingHours", "time", 2]]);
    expect(notes({ time: [iso(0), iso(0), iso(1), "soon"] })).toEqual([
      ["badTimes", "time", 1],
      ["doubleHours", "time", 1],
    ]);
    expect(notes({ time: [-30, -29, 0, 1].map(iso) })).toContainEqual(["pastHours", "time", 2]);
  });
  it("is refused as a whole only when nothing can be used", () => {
    const code = (text: string) => {
      const r = readForecast(text, here);
      return r.ok ? "ok" : r.error.code;
    };
    expect(code("<html>busy</html>")).toBe("forecastNotJson");
    expect(code("{}")).toBe("forecastForeign");
    expect(code(JSON.stringify(file({ issued: "yesterday" })))).toBe("forecastForeign");
    expect(code(JSON.stringify(file({ version: 2 })))).toBe("forecastNewer");
    expect(code(JSON.stringify(file({ time: [1, 2, 3, 4] })))).toBe("forecastNoTimes");
    expect(code(JSON.stringify(file({ time: [-60, -59, -58, -57].map(iso) })))).toBe("forecastOver");
    expect(code(JSON.stringify(file({ time: Array.from({ length: 900 }, (_, i) => iso(i)) })))).toBe("forecastForeign");
  });
  it("says when it is for another place, and when it says nothing of cloud", () => {
    expect(notes({ place: { latitude: 45.1, longitude: 1.9 } })).toEqual([["elsewhere", "place", 167]]);
    expect(read({ place: { latitude: 43.6, longitude: 361.9 - 360 } }).notes).toEqual([]);
    expect(notes({ low_type_cloud_area_fraction: [null, null, null, null] }).map((n) => n[0])).toEqual(["notANumber", "noCloud"]); // prettier-ignore
  });
  it("never throws, whatever the text", () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.json()), (text) => typeof readForecast(text, here).ok === "boolean"),
    );
  });
});

describe("a forecast typed in", () => {
  const at = { window: nightWindow(PARIS, nightDate("2026-12-05")), zone: "Europe/Paris", nowMs: NOW };
  const typed = (text: string, where = at) => readTypedForecast(text, where);
  it("spreads each line over its clock hours, across midnight", () => {
    const r = typed("18-23 20\n23-3 80 36 # front\n");
    if (!r.ok) throw new Error(r.error.code);
    expect(r.value.map((h) => new Date(h.atMs).getUTCHours())).toEqual([17, 18, 19, 20, 21, 22, 23, 0, 1]);
    expect(r.value[0]).toMatchObject({ lowCloud: 0.2, gustMs: null });
    expect(r.value[5]).toMatchObject({ lowCloud: 0.8, gustMs: 10 });
  });
  it("takes a chance of rain at the end of a line, with gusts or without", () => {
    const r = typed("18-20 20 rain 5\n20-22 90 36 rain 60 %\n22-23 90");
    if (!r.ok) throw new Error(r.error.code);
    expect(r.value.map((h) => [h.lowCloud, h.gustMs, h.rainChance])).toEqual([
      [0.2, null, 0.05],
      [0.2, null, 0.05],
      [0.9, 10, 0.6],
      [0.9, 10, 0.6],
      [0.9, null, null],
    ]);
  });
  it("names the line and what is wrong with it", () => {
    const fault = (text: string) => {
      const r = typed(text);
      return r.ok ? "ok" : `${r.error.line} ${r.error.code}`;
    };
    expect(fault("18-23 20\nclear later")).toBe("2 typedLine");
    expect(fault("18-25 20")).toBe("1 typedHour");
    expect(fault("18-23 120")).toBe("1 typedCloud");
    expect(fault("18-23 20 gale")).toBe("1 typedGust");
    expect(fault("18-23 20 rain much")).toBe("1 typedRain");
    expect(fault("# nothing")).toBe("1 typedNothing");
    expect(fault("13-15 20")).toBe("1 typedOutside"); // over by now
  });
  it("takes the doubled hour of an autumn clock change twice, and skips the missing one in spring", () => {
    const night = (date: string) => {
      const window = nightWindow(PARIS, nightDate(date));
      const r = typed("1-4 50", { window, zone: "Europe/Paris", nowMs: window.startMs });
      return r.ok ? r.value.length : 0;
    };
    expect([night("2026-10-24"), night("2026-10-25"), night("2026-03-28")]).toEqual([4, 3, 2]);
  });
});
