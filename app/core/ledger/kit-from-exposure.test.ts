import { describe, expect, it } from "vitest";
import { utcMs } from "~/core/time";
import { kitFromExposure, type ExposureFacts } from ".";

const start = utcMs(Date.parse("2026-12-04T21:00:00Z"));
const facts: ExposureFacts = {
  fileName: "a.fits", sizeBytes: 1, frameType: "light", object: null, hints: [], startMs: start, wallMs: null, exposureSec: 300, filter: null, camera: "Mono-43", gain: 120, offset: null,
  temperatureC: null, focalLengthMm: 500, pixelPitchUm: 4.63, binning: 1, widthPx: 4144, heightPx: 2822, site: { latitudeDeg: 43.6, longitudeDeg: 358.1 }, centre: null, isSolved: true,
  solutionFault: null, positionAngleDeg: 0, rotatorDeg: null, pixelScaleArcsec: 1.9896, measure: null,
}; // prettier-ignore
const dark = () => -40;
const WRITTEN = start + 303_000;

describe("what an exposure tells of the kit", () => {
  it("takes the focal length from the solution, not as it was typed: 206.265 × 4.63 µm ÷ 1.9896″", () => {
    const kit = kitFromExposure(facts, WRITTEN, dark);
    expect(kit.focalLengthMm).toBe(480);
    expect(kit).toMatchObject({ isFocalSolved: true, pixelPitchUm: 4.63, widthPx: 4144, heightPx: 2822, cameraName: "Mono-43", clock: null }); // prettier-ignore
    expect(kit.site!.longitudeDeg).toBeCloseTo(-1.9, 9);
  });

  it("without a solution goes by the header, and says so; without either it says nothing", () => {
    const unsolved = { ...facts, isSolved: false, pixelScaleArcsec: null };
    expect(kitFromExposure(unsolved, WRITTEN, dark)).toMatchObject({ focalLengthMm: 500, isFocalSolved: false });
    expect(kitFromExposure({ ...unsolved, focalLengthMm: null }, WRITTEN, dark).focalLengthMm).toBeNull();
  });

  it("tells colour from mono by a mosaic, else by a filter that only one of them is used with, else not at all", () => {
    const colour = (more: Partial<ExposureFacts>) => kitFromExposure({ ...facts, ...more }, WRITTEN, dark).isColour;
    expect([colour({ isColour: true, filter: "Ha" }), colour({ filter: "Red" }), colour({ filter: "OSC" })]).toEqual([true, false, true]); // prettier-ignore
    expect([colour({}), colour({ filter: "Ha" }), colour({ filter: "L" })]).toEqual([null, null, null]);
  });

  it("counts binned pixels as the file means them", () => {
    const two = { ...facts, binning: 2, widthPx: 2072, heightPx: 1411, pixelScaleArcsec: 3.9792 };
    expect(kitFromExposure(two, WRITTEN, dark)).toMatchObject({ focalLengthMm: 480, widthPx: 4144, heightPx: 2822 });
    expect(kitFromExposure({ ...two, pixelPitchUm: 9.26 }, WRITTEN, dark).focalLengthMm).toBe(480);
  });

  it("doubts a clock where the Sun was up, by the hours that bring it into the dark", () => {
    // The Sun sets below −9° three hours before the time the file gives.
    const sunAt = (_: unknown, at: number) => (at <= start - 3 * 3_600_000 ? -20 : 12);
    expect(kitFromExposure(facts, WRITTEN, sunAt).clock).toEqual({ hours: 3, by: "sun" });
  });

  it("doubts a clock where the file was written whole hours off, and not a file that was copied", () => {
    const clock = (hours: number, sec = 0) =>
      kitFromExposure(facts, WRITTEN + hours * 3_600_000 + sec * 1000, dark).clock;
    expect(clock(1)).toEqual({ hours: -1, by: "file" }); // an hour behind
    expect(clock(-2, 90)).toEqual({ hours: 2, by: "file" });
    expect(clock(0)).toBeNull();
    expect(clock(1, 25 * 60)).toBeNull();
    expect(clock(200)).toBeNull();
  });
});
