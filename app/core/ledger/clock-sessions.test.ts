import fc from "fast-check";
import { expect, it } from "vitest";
import { clockSessions, type Stamped } from "./clock-sessions";

const HOUR = 3_600_000;
const at = (camera: string | null, ...hours: (number | null)[]): Stamped[] =>
  hours.map((h) => ({ camera, atMs: h === null ? null : h * HOUR }));

it("files of a camera are one session until nothing comes for six hours; another camera's are another's", () => {
  const names = clockSessions([...at("a", 18, 20, 25.5, 42, 47), ...at("b", 19, 21), ...at(null, 20, null)]);
  expect(names).toEqual([
    ...Array<string>(3).fill(`a ${18 * HOUR}`),
    ...Array<string>(2).fill(`a ${42 * HOUR}`),
    ...Array<string>(2).fill(`b ${19 * HOUR}`),
    ` ${20 * HOUR}`,
    null,
  ]);
});

it("sessions do not hang on the order of the files, and lie more than six hours apart (law)", () => {
  const file = fc.record({
    camera: fc.constantFrom("a", "b", null),
    atMs: fc.option(
      fc.integer({ min: 0, max: 100 }).map((h) => h * HOUR),
      { nil: null },
    ),
  });
  fc.assert(
    fc.property(fc.array(file, { maxLength: 30 }), fc.func(fc.nat()), (files, by) => {
      const names = clockSessions(files);
      const order = files.map((_, i) => i).sort((a, b) => by(a) - by(b));
      const mixed = clockSessions(order.map((i) => files[i]!));
      expect(mixed).toEqual(order.map((i) => names[i]!));
      for (const [i, a] of files.entries())
        for (const [k, b] of files.entries()) {
          if (a.camera !== b.camera || a.atMs === null || b.atMs === null) continue;
          if (names[i] !== names[k]) expect(Math.abs(a.atMs - b.atMs)).toBeGreaterThan(6 * HOUR);
        }
    }),
  );
});
