import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { utcMs } from "~/core/time";
import { batteryLife, capacityShare } from ".";

const FROM = utcMs(Date.parse("2026-12-05T17:00:00Z"));
const power = { mountW: 10, cameraW: 6, coolerW: 28, dewW: 12, computerW: 10, batteryWh: 600, chemistry: "lithium" } as const; // prettier-ignore
const rig = { isCooled: true, workingTempC: -10 };

describe("how long a battery lasts", () => {
  it("is what it gives that night over what is drawn: by hand", () => {
    // −5 °C: 0.815 of 600 Wh, nine tenths of it; the cooler holds 5 °C below the air, 4 W of its 28.
    const life = batteryLife(power, rig, { fromMs: FROM, airC: -5 });
    expect(life.coolerW).toBeCloseTo(4, 9);
    expect(life.drawW).toBeCloseTo(42, 9);
    expect(life.usableWh).toBeCloseTo(600 * 0.815 * 0.9, 9);
    expect((life.untilMs - FROM) / 3_600_000).toBeCloseTo((600 * 0.815 * 0.9) / 42, 6);
  });

  it("draws nothing for a cooler that is not there, and lasts a week at most", () => {
    expect(batteryLife(power, { ...rig, isCooled: false }, { fromMs: FROM, airC: 15 }).coolerW).toBe(0);
    const idle = { ...power, mountW: 0, cameraW: 0, dewW: 0, computerW: 0, coolerW: 0 };
    expect(batteryLife(idle, rig, { fromMs: FROM, airC: 15 }).untilMs - FROM).toBe(168 * 3_600_000);
  });

  it("never gets longer in the cold, whatever it is made of", () => {
 fc.assert(fc.property(fc.constantFrom("lithium", "lead"), fc.double({ min: -40, max: 40, noNaN: true }), fc.double({ min: 0, max: 20, noNaN: true }), (chemistry, airC, colder) => {
      expect(capacityShare(chemistry, airC - colder)).toBeLessThanOrEqual(capacityShare(chemistry, airC) + 1e-12);
      expect(capacityShare(chemistry, airC)).toBeGreaterThanOrEqual(0.5);
      expect(capacityShare(chemistry, airC)).toBeLessThanOrEqual(1);
    }));
 }); // prettier-ignore
});
