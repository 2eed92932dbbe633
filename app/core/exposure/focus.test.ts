import { expect, it } from "vitest";
import checks from "../../../reference/maths/checks.json";
import { criticalFocusZoneUm, focusShiftMm } from ".";

it("moves the focus back by about a third of a filter's thickness (MATHS C1.8)", () => {
  const { two, three, marg } = checks["C1.8"].outputs;
  expect(focusShiftMm(2)).toBeCloseTo(two, 9);
  expect(focusShiftMm(3)).toBeCloseTo(three, 9);
  expect(focusShiftMm(3, 2)).toBeCloseTo(marg, 9);
});

it("has a focus zone of 10.7, 42.9 and 96.6 µm at f/2, f/4, f/6 (MATHS C1.12)", () => {
  for (const [i, n] of [2, 4, 6].entries())
    expect(criticalFocusZoneUm(n)).toBeCloseTo(checks["C1.12"].outputs.z[i]!, 6);
});

it("tends to the plain shift for slow beams, and to nothing without glass (law)", () => {
  expect(focusShiftMm(3, 1000)).toBeCloseTo(focusShiftMm(3), 6);
  expect(focusShiftMm(0, 4)).toBe(0);
});
