import fc from "fast-check";
import { expect, it } from "vitest";
import { drivePays } from ".";

it("asks for home's night and the road: 2 h at home, an hour each way, thrice the light there", () => {
  expect(drivePays({ homeWorthMin: 120, thereWorthMin: 900, thereUsableMin: 300, travelMin: 60 })).toEqual({
    kind: "from",
    clearMin: 80,
  });
});

it("never pays to where the target is not up, or not better by the road", () => {
  expect(drivePays({ homeWorthMin: 60, thereWorthMin: 0, thereUsableMin: 0, travelMin: 10 }).kind).toBe("never");
  expect(drivePays({ homeWorthMin: 300, thereWorthMin: 300, thereUsableMin: 300, travelMin: 60 }).kind).toBe("never");
});

it("asks for more the farther it is (law)", () => {
  const minutes = fc.double({ min: 1, max: 600, noNaN: true });
  fc.assert(
    fc.property(
      minutes,
      minutes,
      minutes,
      minutes,
      minutes,
      (homeWorthMin, thereWorthMin, thereUsableMin, near, more) => {
        const at = { homeWorthMin, thereWorthMin, thereUsableMin };
        const [a, b] = [drivePays({ ...at, travelMin: near }), drivePays({ ...at, travelMin: near + more })];
        if (b.kind === "from") expect(a.kind === "from" && a.clearMin < b.clearMin).toBe(true);
      },
    ),
  );
});
