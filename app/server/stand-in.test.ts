import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readForecast } from "~/core/formats";
import { clearOdds } from "~/core/weather";
import { HOUR_MS, utcMs } from "~/core/time";
import { isStandIn, standInAnswer, standInForecast, troubleOf } from "./stand-in-forecast.server";
import { pretendedHour } from "./stand-in-sky.server";

const now = Date.parse("2026-12-05T16:40:00Z");
const at = { lat: 43.62, lon: 1.93, nowMs: now };
const here = { nowMs: utcMs(now), latitudeDeg: 43.62, longitudeDeg: 1.93 };
const SOURCES = ["tern", "larch", "quartz"] as const;
const read = (text: string) => {
  const r = readForecast(text, here);
  if (!r.ok) throw new Error(r.error.code);
  return r.value;
};

describe("the simulated forecast services", () => {
  it("speak the documented form without a fault, each in units of its own, wherever and whenever asked", () => {
    const place = fc.record({
      lat: fc.double({ min: -89, max: 89, noNaN: true }),
      lon: fc.double({ min: -180, max: 180, noNaN: true }),
      nowMs: fc.integer({ min: now, max: now + 400 * 24 * HOUR_MS }),
    });
    fc.assert(
      fc.property(place, fc.constantFrom(...SOURCES), (where, id) => {
        const r = readForecast(JSON.stringify(standInForecast(id, where)), {
          nowMs: utcMs(where.nowMs),
          latitudeDeg: where.lat,
          longitudeDeg: where.lon,
        });
        return r.ok && r.value.notes.length === 0 && r.value.hours.length >= 30 && r.value.issuedMs <= where.nowMs;
      }),
      { numRuns: 60 },
    );
  });
  it("disagree, but follow the same pretended sky: nearer to it at once than two days ahead", () => {
    const error = (id: string, from: number, to: number) => {
      let [sum, n] = [0, 0];
      for (let day = 0; day < 40; day++) {
        const nowMs = now + day * 24 * HOUR_MS;
        const text = JSON.stringify(standInForecast(id, { ...at, nowMs }));
        const r = readForecast(text, { ...here, nowMs: utcMs(nowMs) });
        if (!r.ok) throw new Error(r.error.code);
        for (const h of r.value.hours.slice(from, to)) {
          sum += Math.abs((h.lowCloud ?? 0) - pretendedHour(at.lat, at.lon, h.atMs).low);
          n++;
        }
      }
      return sum / n;
    };
    for (const id of SOURCES) expect(error(id, 0, 6)).toBeLessThan(error(id, 36, 44));
    const odds = SOURCES.map((id) => clearOdds(read(JSON.stringify(standInForecast(id, at))).hours[8]!)!);
    expect(new Set(odds.map((p) => p.toFixed(2))).size).toBe(3);
  });
  it("fail, hang and talk nonsense when asked to, and nonsense loses only what is nonsense", () => {
    expect(isStandIn("tern") && !isStandIn("toString")).toBe(true);
    expect(troubleOf("larch", "quartz:down, larch:hang")).toBe("hang");
    expect([troubleOf("tern", "quartz:down"), troubleOf("tern", undefined), troubleOf("tern", "tern:odd")]).toEqual([null, null, null]); // prettier-ignore
    expect(standInAnswer("quartz", { ...at, attempt: 0 }, "down").status).toBe(503);
    expect(standInAnswer("larch", { ...at, attempt: 0 }, "hang").delayMs).toBeGreaterThan(10_000);
    const spoilt = read(standInAnswer("tern", { ...at, attempt: 0 }, "nonsense").body);
    expect(spoilt.notes.map((n) => n.code).sort()).toEqual(["missingHours", "notANumber", "outOfRange"]);
    expect(spoilt.hours.length).toBeGreaterThan(50);
    expect(spoilt.hours.every((h) => clearOdds(h) !== null)).toBe(true);
  });
  it("fail now and then of themselves, quartz more often than tern", () => {
    const failures = (id: string) =>
      Array.from({ length: 300 }, (_, attempt) => standInAnswer(id, { ...at, attempt }, null)).filter((a) => a.status !== 200)
        .length; // prettier-ignore
    expect(failures("tern")).toBeGreaterThan(0);
    expect(failures("quartz")).toBeGreaterThan(3 * failures("tern"));
  });
});
