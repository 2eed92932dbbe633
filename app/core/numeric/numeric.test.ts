import fc from "fast-check";
import { expect, it } from "vitest";
import {
  brentRoot,
  crossings,
  cubicAt,
  extremum,
  gammaCdf,
  linearAt,
  normalCdf,
  normalFrom,
  percentile,
  randomFrom,
} from ".";

it("finds the root of cos x = x, 0.7390851332 (common reference value, from memory)", () => {
  expect(Math.abs(brentRoot((x) => Math.cos(x) - x, 0, 1, 1e-12) - 0.7390851332151607)).toBeLessThan(1e-11);
});

it("refuses to look for a root where there is none", () => {
  expect(() => brentRoot((x) => x * x + 1, -1, 1, 1e-6)).toThrow(RangeError);
});

it("finds every zero of a sine of any phase, rising and falling in turn", () => {
  fc.assert(
    fc.property(fc.double({ min: 0.01, max: 3.1, noNaN: true }), (phase) => {
      const found = crossings((x) => Math.sin(x + phase), { low: 0, high: 20, step: 0.5, tolerance: 1e-10 });
      expect(found.length).toBe(Math.floor((20 + phase) / Math.PI));
      found.forEach((c, i) => {
        expect(Math.abs(c.at - ((i + 1) * Math.PI - phase))).toBeLessThan(1e-8);
        expect(c.rising).toBe(i % 2 === 1);
      });
    }),
  );
});

it("finds two crossings closer together than the step, where the curve only grazes zero", () => {
  for (const centre of [3.02, 3.25, 3.49, 3.5, 3.51, 4]) {
    const found = crossings((x) => 0.001 - (x - centre) ** 2, { low: 0, high: 10, step: 0.5, tolerance: 1e-9 });
    expect(found.map((c) => c.rising)).toEqual([true, false]);
  }
});

it("finds the least point of a parabola", () => {
  expect(extremum((x) => (x - 2) ** 2, { low: 0, high: 5, tolerance: 1e-7, kind: "least" })).toBeCloseTo(2, 6);
});

it("reproduces any cubic exactly between samples, ends included", () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -2, max: 2, noNaN: true }), { minLength: 4, maxLength: 4 }),
      fc.double({ min: 0, max: 6, noNaN: true }),
      ([a, b, c, d], x) => {
        const f = (t: number) => a! + b! * t + c! * t * t + d! * t ** 3;
        expect(cubicAt([0, 1, 2, 3, 4, 5, 6].map(f), x)).toBeCloseTo(f(x), 8);
      },
    ),
  );
});

it("joins points by straight lines and holds the ends", () => {
  const points = [
    { x: 1, y: 10 },
    { x: 3, y: 20 },
  ];
  expect([0, 1, 2, 3, 9].map((x) => linearAt(points, x))).toEqual([10, 10, 15, 20, 20]);
});

it("gives the same stream for the same seed, evenly spread", () => {
  const [a, b] = [randomFrom(7), randomFrom(7)];
  const values = Array.from({ length: 20_000 }, () => a());
  expect(values.slice(0, 5)).toEqual(Array.from({ length: 5 }, () => b()));
  const mean = values.reduce((sum, v) => sum + v, 0) / values.length;
  expect(Math.abs(mean - 0.5)).toBeLessThan(4 / Math.sqrt(12 * 20_000)); // four standard errors of a uniform mean
});

it("draws a standard normal: mean, spread and tails within four standard errors of what the distribution has", () => {
  const normal = normalFrom(randomFrom(11));
  const [n, values] = [20_000, Array.from({ length: 20_000 }, () => normal())];
  const mean = values.reduce((sum, v) => sum + v, 0) / n;
  const variance = values.reduce((sum, v) => sum + v * v, 0) / n;
  expect(Math.abs(mean)).toBeLessThan(4 / Math.sqrt(n));
  expect(Math.abs(variance - 1)).toBeLessThan(4 * Math.sqrt(2 / n));
  for (const z of [-2, -1, 0, 1.5]) {
    const p = normalCdf(z);
    const share = values.filter((v) => v < z).length / n;
    expect(Math.abs(share - p)).toBeLessThan(4 * Math.sqrt((p * (1 - p)) / n));
  }
});

it("reads percentiles as the value that a share of the list does not exceed", () => {
  expect([0.1, 0.5, 0.9, 1].map((s) => percentile([5, 1, 4, 2, 3, 6, 8, 7, 10, 9], s))).toEqual([1, 5, 9, 10]);
});

it("has the gamma distribution of whole shapes as Poisson sums, and of shape 1/2 as the error function (A&S 6.5.13, 6.5.16)", () => {
  for (const n of [1, 2, 5, 17, 60])
    for (const x of [0.01, 0.5, 1, 3, 10, 40, 90]) {
      let term = Math.exp(-x);
      let below = term;
      for (let i = 1; i < n; i++) below += term *= x / i;
      expect(gammaCdf(n, x)).toBeCloseTo(1 - below, 10);
    }
  for (const z of [0.1, 0.7, 1.5, 2.5]) expect(gammaCdf(0.5, (z * z) / 2)).toBeCloseTo(2 * normalCdf(z) - 1, 5);
  expect(gammaCdf(3, 0)).toBe(0);
  expect(() => gammaCdf(0, 1)).toThrow(RangeError);
});
