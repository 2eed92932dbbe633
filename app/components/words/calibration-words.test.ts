import { describe, expect, it } from "vitest";
import { calibrationNeeds, USUAL_CALIBRATION, type CalibrationData, type LightPlan } from "~/core/ledger";
import { needWords, shelfWords } from "./calibration-words";

const light = (more: Partial<LightPlan>): LightPlan => ({ channel: "Ha", filterName: "Ha 5 nm", subSec: 300, gain: null, offset: null, binning: null, angleDeg: null, ...more }); // prettier-ignore
const camera = { cameraName: "Cam", isCooled: true, sensorC: -10 };
const needsOf = (lights: readonly LightPlan[], shelf: readonly CalibrationData[] = []) =>
  calibrationNeeds(lights, shelf, { camera, school: USUAL_CALIBRATION, changed: null, nowMs: 0 });
const wordsOf = (lights: readonly LightPlan[]): string[] => needsOf(lights).map(needWords);

describe("words of calibration needs", () => {
  it("name how the camera is to be set, as far as is known (reported: gain was never named)", () => {
    expect(wordsOf([light({ gain: 100, offset: 30, binning: 2 })])[0]).toBe(
      "30 darks of 300 s, gain 100, offset 30, binned 2 × 2, −10 °C",
    );
    expect(wordsOf([light({ binning: 1 })])[0]).toBe("30 darks of 300 s, −10 °C");
  });
  it("tell darks of one length apart, and no two lines are the same: what one light does not say is what others do", () => {
    const words = wordsOf([light({ gain: 100 }), light({ channel: "L", filterName: "L", gain: 0 }), light({ channel: "R", filterName: "R" })]); // prettier-ignore
    expect(words.slice(0, 2)).toEqual(["30 darks of 300 s, gain 100, −10 °C", "30 darks of 300 s, gain 0, −10 °C"]);
    expect(words.filter((w) => w.includes("darks of"))).toHaveLength(2);
    expect(new Set(words).size).toBe(words.length);
  });
  it("say what the shelf has at another setting instead", () => {
    const dark: CalibrationData = { type: "dark", memberId: "m", camera: "Cam", exposureSec: 300, gain: 100, temperatureC: -10, filter: "", startMs: 0, fileName: "f" }; // prettier-ignore
    const [need] = needsOf([light({ gain: 0 })], [dark, dark, { ...dark, gain: 50 }]);
    expect(shelfWords(need!)).toBe("none on the shelf; 2 at gain 100");
    expect(shelfWords(needsOf([light({ gain: 0 })])[0]!)).toBe("none on the shelf");
  });
});
