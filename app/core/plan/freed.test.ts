import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { RunSheet } from "~/core/night";
import { MINUTE_MS, utcMs } from "~/core/time";
import { freedHours, type WishOffer } from "./freed";

const at = (min: number) => utcMs(Date.UTC(2026, 11, 5, 17) + min * MINUTE_MS);
const sheet = (endMin: number, leftOver: RunSheet["leftOver"] = []): RunSheet => ({
  lines: [
    { kind: "block", startMs: at(0), endMs: at(endMin), projectId: "p", panel: "P1", channel: "Ha", filterName: "Ha", subs: 6, subSec: 300, stage: 0 }, // prettier-ignore
    { kind: "packUp", startMs: at(endMin), endMs: at(endMin + 10), detail: "" },
  ],
  exposureMin: 30,
  leftOver,
});
const wish = (targetId: string, from: number, to: number, rate = 1): WishOffer => ({
  targetId,
  name: targetId,
  channel: "L",
  windows: [{ startMs: at(from), endMs: at(to) }],
  worthMin: (a, b) => (rate * (b - a)) / MINUTE_MS,
});
const night = { darkEndMs: at(600), wishes: [], darks: [], slewMin: 3 };

describe("hours that an evening has no use for", () => {
  it("are none where the night is used to its end, and none of an empty sheet", () => {
    expect(freedHours(sheet(560), night)).toBeNull();
    expect(freedHours({ lines: [], leftOver: [] }, night)).toBeNull();
  });
  it("begin with the last sub of an evening whose goals are met; one that ends with work left over is not free", () => {
    expect(freedHours(sheet(200), night)).toMatchObject({ fromMs: at(200), toMs: at(600), wish: null });
    const more = [{ panel: "P1", channel: "Ha" as const, exposureMin: 40 }];
    expect(freedHours(sheet(200, more), { ...night, wishes: [wish("high", 240, 480)] })).toBeNull();
  });
  it("go to the wish that they are worth most for, within its own hours", () => {
    const wishes = [wish("low", 0, 600, 0.3), wish("high", 240, 480), wish("gone", 0, 100)];
    expect(freedHours(sheet(200), { ...night, wishes })?.wish).toMatchObject({ targetId: "high", startMs: at(240), endMs: at(480) }); // prettier-ignore
    expect(freedHours(sheet(460), { ...night, wishes })?.wish).toMatchObject({ targetId: "low", startMs: at(463) });
  });
  it("then to the darks that are due, as many as fit (law)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 560 }), fc.option(fc.integer({ min: 60, max: 600 }), { nil: null }), fc.integer({ min: 1, max: 200 }), fc.constantFrom(30, 300, 900), (end, wished, count, exposureSec) => {
        const wishes = wished === null ? [] : [wish("w", 0, wished)];
        const found = freedHours(sheet(end), { ...night, wishes, darks: [{ count, exposureSec }] });
        if (!found) return;
        expect(found.wish ? found.wish.startMs : found.toMs).toBeGreaterThanOrEqual(found.fromMs);
        if (!found.darks) return;
        expect(found.darks.count).toBeLessThanOrEqual(count);
        expect(found.darks.fromMs).toBeGreaterThanOrEqual(found.wish?.endMs ?? found.fromMs);
        expect(found.darks.fromMs + found.darks.count * exposureSec * 1000).toBeLessThanOrEqual(found.toMs);
      }),
    ); // prettier-ignore
  });
});
