import { Body, Equator, Horizon, Observer } from "astronomy-engine";
import fc from "fast-check";
import { expect, it } from "vitest";
import { addMs, addNights, MINUTE_MS, nightDate, utcMs, utcOffsetMinutes } from "~/core/time";
import { nightOf, nightSky, nightWindow, sunAltitudeDeg } from ".";

const runs = (usual: number, many: number) => (process.env["LAWS_SEED"] === "new" ? many : usual);
/** Zones from 12 h behind to 14 h ahead, with summer time on both sides of the equator, halves and quarters. */
const ZONES = ["Atlantic/Reykjavik", "UTC", "Europe/Rome", "America/Los_Angeles", "America/St_Johns", "Asia/Kathmandu", "Pacific/Auckland", "Pacific/Chatham", "Pacific/Kiritimati", "Etc/GMT+12", "Australia/Lord_Howe", "Asia/Shanghai"]; // prettier-ignore
const longitude = fc.double({ min: -180, max: 180, noNaN: true });
const latitude = fc.oneof(fc.double({ min: -90, max: 90, noNaN: true }), fc.double({ min: 60, max: 72, noNaN: true }));
const day = fc.integer({ min: 0, max: 1500 }).map((d) => addNights(nightDate("2025-01-01"), d));

/** The Sun as the ephemeris library itself gives it: no window, no track. */
const sunDeg = (ms: number, at: { latitudeDeg: number; longitudeDeg: number }) => {
  const seen = new Observer(at.latitudeDeg, at.longitudeDeg, 0);
  const e = Equator(Body.Sun, new Date(ms), seen, true, true);
  return Horizon(new Date(ms), seen, e.ra, e.dec).altitude;
};

it("starts at the Sun's highest, and consecutive nights touch (law, judged by the library's own Sun)", () => {
  fc.assert(
    fc.property(longitude, fc.constantFrom(...ZONES), day, (longitudeDeg, timeZone, date) => {
      const night = nightWindow({ longitudeDeg, timeZone }, date);
      expect(nightWindow({ longitudeDeg, timeZone }, addNights(date, 1)).startMs).toBe(night.endMs);
      const at = { latitudeDeg: 45, longitudeDeg };
      const noon = sunDeg(night.startMs, at);
      for (const min of [-10, 10]) expect(sunDeg(night.startMs + min * MINUTE_MS, at)).toBeLessThan(noon);
      expect(Math.abs((night.endMs - night.startMs) / MINUTE_MS - 1440)).toBeLessThan(0.6);
    }),
    { numRuns: runs(100, 2000) },
  );
});

it("has every dark minute of four days in exactly one night, from pole to pole and in zones up to 14 h off (law, judged by a sweep)", () => {
  fc.assert(
    fc.property(latitude, longitude, fc.constantFrom(...ZONES), day, (latitudeDeg, longitudeDeg, timeZone, date) => {
      const place = { latitudeDeg, longitudeDeg, elevationM: 0, timeZone };
      const nights = [0, 1, 2, 3].map((i) => nightWindow(place, addNights(date, i)));
      const [from, to] = [nights[0]!.startMs, nights[3]!.endMs];
      let [swept, found] = [0, 0];
      for (let ms: number = from; ms < to; ms += 7 * MINUTE_MS) if (sunDeg(ms, place) < -18) swept++;
      for (const window of nights) {
        const sky = nightSky(place, window);
        const first = Math.ceil((window.startMs - from) / (7 * MINUTE_MS));
        for (let ms = addMs(from, first * 7 * MINUTE_MS); ms < window.endMs; ms = addMs(ms, 7 * MINUTE_MS))
          if (sunAltitudeDeg(sky, ms) < -18) found++;
      }
      expect(Math.abs(found - swept)).toBeLessThanOrEqual(1); // a sample on the very edge of a grazing night
    }),
    { numRuns: runs(60, 1000) },
  );
});

it("names every instant of a night after it, and the night after its first noon's date where clocks follow the Sun within 10 h (law)", () => {
  fc.assert(
    fc.property(longitude, fc.constantFrom(...ZONES), day, fc.double({ min: 0, max: 0.999999, noNaN: true }), (longitudeDeg, timeZone, date, share) => {
      const place = { longitudeDeg, timeZone };
      const { startMs, endMs } = nightWindow(place, date);
      expect(nightOf(place, utcMs(Math.floor(startMs + share * (endMs - startMs))))).toBe(date);
      const offMin = utcOffsetMinutes(timeZone, startMs);
      const clockMin = (((startMs / MINUTE_MS + offMin) % 1440) + 1440) % 1440;
      if (clockMin > 90 && clockMin < 1350) expect(new Date(startMs + offMin * MINUTE_MS).toISOString().slice(0, 10)).toBe(date);
    }), // prettier-ignore
    { numRuns: runs(200, 5000) },
  );
});

it("names the night of the very first instant that can be asked for, which began the evening before (found by any-data: Tonight fell)", () => {
  expect(nightOf({ longitudeDeg: 13, timeZone: "Europe/Berlin" }, utcMs(Date.UTC(1900, 0, 1)))).toBe("1899-12-31");
});
