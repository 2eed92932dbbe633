import { describe, expect, it } from "vitest";
import { calibrationNeeds, USUAL_CALIBRATION, type LightPlan } from "~/core/ledger";
import { needWords } from "./calibration-words";

const light = (more: Partial<LightPlan>): LightPlan => ({ channel: "Ha", filterName: "Ha 5 nm", subSec: 300, gain: null, offset: null, binning: null, angleDeg: null, ...more }); // prettier-ignore
const wordsOf = (lights: readonly LightPlan[]): string[] => {
  const camera = { cameraName: "Cam", isCooled: true, sensorC: -10 };
  const needs = calibrationNeeds(lights, [], { camera, school: USUAL_CALIBRATION, changed: null, nowMs: 0 });
  return needs.map((n) => needWords(n, needs));
};

describe("words of calibration needs", () => {
  it("say no setting where nothing has to be told apart", () => {
    expect(wordsOf([light({ gain: 100 })])[0]).toBe("30 darks of 300 s");
  });
  it("tell darks of one length apart by what differs, and no two lines are the same", () => {
    const words = wordsOf([light({ gain: 100 }), light({ channel: "L", filterName: "L", gain: 0 }), light({ channel: "R", filterName: "R" })]); // prettier-ignore
    expect(words.slice(0, 3)).toEqual([
      "30 darks of 300 s, gain 100",
      "30 darks of 300 s, gain 0",
      "30 darks of 300 s, gain not known",
    ]);
    expect(new Set(words).size).toBe(words.length);
  });
});
