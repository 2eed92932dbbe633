import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { BORNE_TRAIL_PX, rotationSubSec, roundShare, unguidedSubSec } from ".";

describe("subs of a mount without guiding", () => {
  const worm = { periodicErrorArcsec: 30, wormSec: 480 };

  it("survive as often as MATHS C3.13 has it", () => {
    expect(roundShare(worm, 2.424, 30)).toBeCloseTo(0.272, 3);
    expect(roundShare(worm, 2.424, 60)).toBeCloseTo(0.135, 3);
    expect(roundShare(worm, 2.424, 12)).toBe(1); // worst case 12.34 s
    expect(roundShare(worm, 2.424, 12.5)).toBeLessThan(1);
  });

  it("are limited by polar error alone where there is no worm: C3.14, 10′ need 55.4 s for 1.5 px of 1.616″", () => {
    const sec = unguidedSubSec({ periodicErrorArcsec: 0, wormSec: 480, polarErrorArcmin: 10 }, 1.616);
    expect(sec).toBe(55);
  });

  /** A sub is round when the mount's own curve moves by less than the trail that is borne; starts are spread over the period. */
  const simulated = (p: number, period: number, driftPerSec: number, borne: number, sec: number) => {
    const starts = 2000;
    let round = 0;
    for (let i = 0; i < starts; i++) {
      const at = (t: number) => (p / 2) * Math.sin((2 * Math.PI * t) / period);
      const t0 = (i / starts) * period;
      if (Math.abs(at(t0 + sec) - at(t0)) <= borne - driftPerSec * sec) round++;
    }
    return round / starts;
  };

  it("come out round four times in five, and not with much longer ones, by simulation", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 80, noNaN: true }),
        fc.integer({ min: 240, max: 900 }),
        fc.double({ min: 0, max: 15, noNaN: true }),
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        (p, wormSec, polar, scale) => {
          const sec = unguidedSubSec({ periodicErrorArcsec: p, wormSec, polarErrorArcmin: polar }, scale);
          const share = (s: number) => simulated(p, wormSec, (polar * 0.2625) / 60, BORNE_TRAIL_PX * scale, s);
          if (sec > 1 && sec < wormSec / 2) expect(share(sec)).toBeGreaterThan(0.79);
          if (sec < wormSec / 3) expect(share(sec + 2)).toBeLessThan(0.82);
        },
      ),
    );
  });
});

describe("subs under a turning field", () => {
  it("trail as MATHS C3.17: 19.336° an hour, a degree from the centre, 10.12″ in 30 s", () => {
    // A sensor whose corner lies a degree out at 1″ a pixel.
    const sensor = { widthPx: 2 * 3600, heightPx: 0, binning: 1 };
    expect((30 / rotationSubSec(sensor, 19.336)) * BORNE_TRAIL_PX).toBeCloseTo(10.12, 2);
  });
  it("are not limited where nothing turns, and longer with binned pixels", () => {
    const sensor = { widthPx: 6000, heightPx: 4000, binning: 1 };
    expect(rotationSubSec(sensor, 0)).toBe(Number.POSITIVE_INFINITY);
    expect(rotationSubSec({ ...sensor, binning: 2 }, 10)).toBeCloseTo(2 * rotationSubSec(sensor, 10), 9);
  });
});
