import { describe, expect, it } from "vitest";
import { ceilingE, stillTypical, typicalRig, TYPICAL_VALUES, type KitPresets } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import presets from "~/data/kit-presets.json";
import { decodeData } from ".";

const kit = presets as KitPresets;

describe("typical kit", () => {
  it("is read by the same schema as typed values, in every combination", () => {
    let rigs = 0;
    for (const optics of kit.optics)
      for (const camera of kit.cameras)
        for (const mount of kit.mounts)
          for (const isColour of [true, false]) {
            const rig = typicalRig("A rig", { optics, camera, mount, isColour }, ["filter-1"]);
            const read = decodeData("rig", structuredClone(rig));
            expect(
              read.ok ? "" : `${optics.id} ${camera.id} ${mount.id}: ${read.error.path} ${read.error.message}`,
            ).toBe("");
            rigs++;
          }
    expect(rigs).toBe(15 * 10 * 7 * 2);
  });

  it("says in its own words what follows from its numbers: focal ratios, megapixels", () => {
    for (const o of kit.optics) {
      const [, focal, ratio] = /(\d+) mm f\/([\d.]+)$/.exec(o.words)!;
      expect(Number(focal), o.words).toBe(o.focalMm);
      expect(Math.abs(o.focalMm / o.apertureMm - Number(ratio)), o.words).toBeLessThan(0.06);
    }
    for (const c of kit.cameras) {
      const mega = Number(/(\d+) megapixels/.exec(c.words)![1]);
      expect(Math.abs((c.widthPx * c.heightPx) / 1e6 - mega), c.words).toBeLessThan(0.8);
    }
  });

  it("sets what follows from a choice: colour, cooling, guiding, the turning field", () => {
    const of = (optics: string, camera: string, mount: string, isColour = false) =>
      typicalRig("A rig", { optics: kit.optics.find((o) => o.id === optics)!, camera: kit.cameras.find((c) => c.id === camera)!, mount: kit.mounts.find((m) => m.id === mount)!, isColour }, ["f"]); // prettier-ignore
    const tracker = of("lens-135", "p-aps-24", "tracker");
    expect([tracker.isColour, tracker.isCooled, tracker.isGuided, tracker.flipsAtMeridian]).toEqual([true, false, false, false]); // prettier-ignore
    expect(tracker.settings!.map((s) => s.name)).toEqual(["ISO 800", "ISO 1600"]);
    // A worm of 50″ in 10 minutes behind 135 mm and 3.9 µm: half a minute, as people find.
    expect(tracker.longestUnguidedSec).toBeGreaterThan(20);
    expect(tracker.longestUnguidedSec).toBeLessThan(60);
    const turning = of("sct-1280", "c-43-12", "altaz");
    expect([turning.isAltAz, turning.rotator, turning.flipsAtMeridian]).toEqual([true, "none", false]);
    expect(of("ref-480", "c-aps-26", "eq").isAltAz).toBeUndefined();
    for (const camera of kit.cameras) {
      const rig = of("ref-480", camera.id, "eq");
      // What is free above the bias level holds the well that the setting is said to have, to a twentieth.
      expect(ceilingE(rig) / rig.fullWellE, camera.words).toBeGreaterThan(0.94);
      expect(opticsOf(rig).fieldWidthDeg).toBeGreaterThan(0.5);
    }
  });

  it("counts a value as typical until its owner replaces it", () => {
    const typical = typicalRig("A rig", { optics: kit.optics[0]!, camera: kit.cameras[0]!, mount: kit.mounts[0]!, isColour: true }, ["f"]); // prettier-ignore
    expect(stillTypical(typical, typical)).toEqual(TYPICAL_VALUES);
    const own = { ...typical, readNoiseE: 9, sensor: { ...typical.sensor, pixelPitchUm: 5 } };
    expect(TYPICAL_VALUES.filter((v) => !stillTypical(typical, own).includes(v))).toEqual([
      "pixelPitchUm",
      "readNoiseE",
    ]);
    expect(stillTypical({ ...own, typical: ["fullWellE"] }, own)).toEqual(["fullWellE"]);
  });
});
