import fc from "fast-check";
import { expect, it } from "vitest";
import { transits } from "~/core/sky";
import { addNights, nightDate } from "~/core/time";
import { testPlace } from "../test-data";
import { CAUSES, hourlySteps, NIGHT_STEP_MIN, USUAL_MOON, placeNight, targetNight } from ".";

it("stands on the full hours of the place's clocks, in order, each usable or lost as its step is (law; clocks by Intl)", () => {
  const zones = ["Europe/Paris", "Asia/Kolkata", "Australia/Adelaide", "UTC", "America/St_Johns"];
  fc.assert(
    fc.property(
      fc.constantFrom(...zones),
      fc.integer({ min: 0, max: 364 }),
      fc.double({ min: 0, max: 359.9, noNaN: true }),
      fc.double({ min: -40, max: 80, noNaN: true }),
      (timeZone, day, raDeg, decDeg) => {
        const place = { ...testPlace, timeZone };
        const night = placeNight(place, addNights(nightDate("2026-01-01"), day), USUAL_MOON);
        const { walk, ofDate } = targetNight(night, { frame: "icrs", raDeg, decDeg }, "Ha");
        const hours = hourlySteps(night.sky, night.steps, walk, ofDate, timeZone);
        const clock = new Intl.DateTimeFormat("en-GB", { timeZone, minute: "2-digit", second: "2-digit" });
        hours.forEach((h, i) => {
          expect(clock.format(h.atMs)).toBe("00:00");
          if (i > 0) expect(h.atMs).toBeGreaterThan(hours[i - 1]!.atMs);
          const step = Math.floor((h.atMs - night.steps.startMs) / (NIGHT_STEP_MIN * 60_000));
          expect(h.cause).toBe(CAUSES[walk.cause[step]!]);
        });
        // Highest at the hour nearest to the transit, when that falls into the night.
        const top = transits(night.sky, ofDate)[0];
        if (!top || hours.length < 3 || top.atMs < hours[0]!.atMs || top.atMs > hours.at(-1)!.atMs) return;
        const highest = hours.reduce((a, b) => (b.altitudeDeg > a.altitudeDeg ? b : a));
        expect(Math.abs(highest.atMs - top.atMs)).toBeLessThanOrEqual(31 * 60_000);
      },
    ),
  );
});
