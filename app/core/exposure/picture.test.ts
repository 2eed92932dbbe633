import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { unpackCatalog, type CatalogEntry, type PackedCatalog } from "~/core/catalog";
import { testRig } from "~/core/test-data";
import { magToFluxRatio } from "~/core/units";
import { besideSky, CHANNEL_FACTS, elementArcsec, equivalentHours, habitHours, lightModel, pictureOf, sameDepthHours, underSky, unitSnrSec, type Channel, type Filter, type LightModel, type ObjectLight, type Rig } from "."; // prettier-ignore

const unpacked = unpackCatalog(JSON.parse(readFileSync("app/data/objects.json", "utf8")) as PackedCatalog);
if (!unpacked.ok) throw new Error("data does not unpack");
const entryOf = (id: string): CatalogEntry => unpacked.value.find((e) => e.id === id)!;

const runs = (usual: number, many: number) => ({ numRuns: process.env["LAWS_SEED"] === "new" ? many : usual });
const filter = (channel: Channel, bandwidthNm = CHANNEL_FACTS[channel].bandwidthNm): Filter => ({
  name: channel, channel, centreNm: CHANNEL_FACTS[channel].centreNm, bandwidthNm, transmission: 0.9,
}); // prettier-ignore
const NO_LIGHT: ObjectLight = { ha: 0, oiii: 0, sii: 0, magPerArcsec2: null };
const rig = (apertureMm: number, focalLengthMm: number, more: Partial<Rig> = {}): Rig => ({
  ...testRig, apertureMm, focalLengthMm, reducerFactor: 1, obstruction: 0, throughput: 0.9, quantumEfficiency: 0.85, readNoiseE: 1.5, darkEPerSec: 0.0005, isCooled: true, ...more,
}); // prettier-ignore
const LRGB = (["L", "R", "G", "B"] as const).map((c) => filter(c));
const SHO = (["Ha", "OIII", "SII"] as const).map((c) => filter(c));

/** The rates of MATHS C3.30, all at 550 nm, from the printed formulas: another path to the same seconds. */
function printedModel(at: { D: number; f: number; eta: number; sky: number; nm: number; share: number }): LightModel {
  const area = (Math.PI / 4) * (at.D / 1000) ** 2;
  const scale = (206.265 * 3.76) / at.f;
  const perPixel = (5.4799e10 / 550) * at.nm * area * at.eta * scale ** 2;
  const line = 1.87042e-2 * area * at.eta * scale ** 2;
  const kind = { ha: line, oiii: 0, sii: 0, zeroMag: perPixel, sky: perPixel * magToFluxRatio(at.sky), rest: 0.0005 + 1.5 ** 2 / 300, share: at.share }; // prettier-ignore
  return { kinds: [kind], pixelScaleArcsecPerPx: scale };
}

describe("hours to a picture (MATHS 3.15)", () => {
  const printed = [
    { what: "60 R", D: 80, f: 400, eta: 0.55, sky: 20 - 0.3, nm: 5, share: 1, ha: 60, mag: null, size: 60, sec: 24.3, hours: 4.7 },
    { what: "25 R", D: 80, f: 400, eta: 0.55, sky: 20 - 0.3, nm: 5, share: 1, ha: 25, mag: null, size: 60, sec: 129, hours: 10.8 },
    { what: "60 R in a city", D: 80, f: 400, eta: 0.55, sky: 18.5 - 0.3, nm: 5, share: 1, ha: 60, mag: null, size: 60, sec: 80.5, hours: 8.5 },
    { what: "a lens", D: 48, f: 135, eta: 0.55, sky: 20 - 0.3, nm: 5, share: 1, ha: 25, mag: null, size: 120, sec: 113, hours: 10.1 },
    { what: "200 mm", D: 200, f: 800, eta: 0.5, sky: 20 - 0.3, nm: 5, share: 1, ha: 25, mag: null, size: 30, sec: 42.5, hours: 6.2 },
    { what: "dual band", D: 61, f: 360, eta: 0.5, sky: 20 - 0.3, nm: 7, share: 0.25, ha: 25, mag: null, size: 60, sec: 1356, hours: 35 },
    { what: "continuum", D: 100, f: 550, eta: 0.55, sky: 21, nm: 300, share: 1, ha: 0, mag: 24, size: 10, sec: 25.9, hours: 4.8 },
    { what: "in a city", D: 100, f: 550, eta: 0.55, sky: 18.5, nm: 300, share: 1, ha: 0, mag: 24, size: 10, sec: 243, hours: 14.8 },
    { what: "colour", D: 80, f: 400, eta: 0.5, sky: 20, nm: 200, share: 0.5, ha: 0, mag: 23.8, size: 10000 / 60, sec: 45.4, hours: 6.4 },
  ] as const; // prettier-ignore
  it.each(printed)("$what: seconds for a signal to noise of 1, and hours to begin with (MATHS C3.30)", (c) => {
    const model = printedModel(c);
    const side = elementArcsec({ pixelScaleArcsecPerPx: model.pixelScaleArcsecPerPx, fwhmArcsec: 3, majorArcmin: c.size }); // prettier-ignore
    const sec = unitSnrSec(model, { ...NO_LIGHT, ha: c.ha, magPerArcsec2: c.mag }, side);
    expect(Math.abs(sec / c.sec - 1)).toBeLessThan(0.006);
    expect(Math.abs(habitHours(sec) - c.hours)).toBeLessThan(0.06);
  });

  /** The table of practice of MATHS 3.15 (common practice, no source); published with what comes out in docs/accuracy.md. */
  const practice = [
    ["spiral galaxies from 21.0, 100 mm, L and RGB", ["NGC 7331", "M 101", "M 33", "M 51"], rig(100, 550), LRGB, 21, [6, 15]],
    ["large ones from 18.5", ["M 101", "M 51"], rig(100, 550), LRGB, 18.5, [20, 50]],
    ["M 31 with a colour camera from 20", ["M 31"], rig(80, 400, { isColour: true }), [filter("Colour")], 20, [4, 10]],
    ["a remnant in two lines from 20", ["NGC 6960"], rig(80, 400), SHO.slice(0, 2), 20, [15, 30]],
    ["reflection nebulae from 21", ["NGC 7023", "M 45"], rig(100, 550), LRGB, 21, [7, 15]],
    ["dust from 21.3", ["LDN 1251"], rig(100, 550), LRGB, 21.3, [15, 30]],
    ["globular clusters", ["M 13", "M 3"], rig(80, 400), LRGB, 20, [2, 4]],
    ["open clusters", ["M 37", "M 35"], rig(80, 400), LRGB, 20, [1, 2.5]],
    ["bright planetaries", ["M 27", "M 57"], rig(80, 400), SHO, 20, [3, 6]],
    ["medium hydrogen with a dual-band colour camera, 61 mm", ["Sh2-129"], rig(61, 360, { isColour: true }), [filter("Dual")], 20, [15, 35]],
    ["bright hydrogen with an unfiltered colour camera", ["NGC 7000"], rig(61, 360, { isColour: true }), [filter("Colour")], 20, [30, 80]],
  ] as const; // prettier-ignore
  it.each(practice)("%s take what people take", (_, ids, kit, filters, sky, [least, most]) => {
    for (const id of ids) {
      const { hours } = pictureOf(entryOf(id), { rig: kit, filters, skyMagPerArcsec2: sky, seeingArcsec: 3 });
      expect(hours, id).toBeGreaterThanOrEqual(least);
      expect(hours, id).toBeLessThanOrEqual(most);
    }
  });
  it("takes 3 to 6 h a channel of a bright nebula from 20.0, 6 to 12 h from 18.5 and of a medium one", () => {
    const lead = (id: string, sky: number) => pictureOf(entryOf(id), { rig: rig(80, 400), filters: SHO, skyMagPerArcsec2: sky, seeingArcsec: 3 }).jobs; // prettier-ignore
    for (const j of lead("NGC 7000", 20)) expect(j.hours).toBeGreaterThanOrEqual(3);
    for (const j of lead("NGC 7000", 20)) expect(j.hours).toBeLessThanOrEqual(6);
    for (const j of [...lead("NGC 7000", 18.5), ...lead("Sh2-129", 20)]) expect(j.hours).toBeGreaterThanOrEqual(6);
    for (const j of [...lead("NGC 7000", 18.5), ...lead("Sh2-129", 20)]) expect(j.hours).toBeLessThanOrEqual(12);
  });
  it("calls a line object out of reach without a filter, all the more with a photo camera as it is sold", () => {
    const take = (isStock: boolean) => pictureOf(entryOf("NGC 7000"), { rig: rig(61, 360, { isColour: true, ...(isStock ? { isStock } : {}) }), filters: [filter("Colour")], skyMagPerArcsec2: 20, seeingArcsec: 3 }); // prettier-ignore
    expect(take(false).isDrowned).toBe(true);
    expect(take(true).hours).toBeGreaterThan(1.5 * take(false).hours);
    expect(pictureOf(entryOf("M 31"), { rig: rig(61, 360, { isColour: true }), filters: [filter("Colour")], skyMagPerArcsec2: 19, seeingArcsec: 3 }).isDrowned).toBe(false); // prettier-ignore
  });
});

const anyKit = fc.record({
  aperture: fc.integer({ min: 40, max: 300 }),
  ratio: fc.double({ min: 2, max: 8, noNaN: true }),
  sky: fc.double({ min: 18, max: 22, noNaN: true }),
});
const anyLine: fc.Arbitrary<ObjectLight> = fc
  .double({ min: 3, max: 300, noNaN: true })
  .map((ha) => ({ ...NO_LIGHT, ha }));
const anyBroad: fc.Arbitrary<ObjectLight> = fc.double({ min: 20, max: 26, noNaN: true }).map((magPerArcsec2) => ({ ...NO_LIGHT, magPerArcsec2 })); // prettier-ignore

describe("time for a depth (laws of MATHS 3.15)", () => {
  const sec = (r: Rig, f: Filter, sky: number, light: ObjectLight) =>
    unitSnrSec(lightModel({ rig: r, filter: f, skyMagPerArcsec2: sky }, 180), light, 10);
  it("falls with aperture, a darker sky, and a narrower filter for lines", () => {
    fc.assert(
      fc.property(anyKit, anyLine, anyBroad, ({ aperture, ratio, sky }, line, broad) => {
        const focal = aperture * ratio;
        for (const [light, f] of [[line, filter("Ha")], [broad, filter("L")]] as const) {
          const now = sec(rig(aperture, focal), f, sky, light);
          expect(sec(rig(aperture * 1.2, focal), f, sky, light)).toBeLessThan(now);
          expect(sec(rig(aperture, focal), f, sky + 0.3, light)).toBeLessThan(now);
        }
        expect(sec(rig(aperture, focal), filter("Ha", 3), sky, line)).toBeLessThan(sec(rig(aperture, focal), filter("Ha", 7), sky, line)); // prettier-ignore
      }),
      runs(200, 5000),
    ); // prettier-ignore
  });
  it("of L, R, G and B on a mono camera is never more than of a colour camera with the same optics, hours neither", () => {
    const galaxies = unpacked.value.filter(
      (e) => e.kind === "galaxy" && e.magnitude !== null && (e.majorArcmin ?? 0) > 2,
    );
    fc.assert(
      fc.property(anyKit, fc.nat(galaxies.length - 1), ({ aperture, ratio, sky }, row) => {
        const kit = { skyMagPerArcsec2: sky, seeingArcsec: 3 };
        const mono = pictureOf(galaxies[row]!, { ...kit, rig: rig(aperture, aperture * ratio), filters: LRGB });
        const colour = pictureOf(galaxies[row]!, { ...kit, rig: rig(aperture, aperture * ratio, { isColour: true }), filters: [filter("Colour")] }); // prettier-ignore
        // By habit nearly alike: blue sky is dark, which colour pixels have the good of (MATHS 2.11). To half an hour, four times.
        expect(mono.hours).toBeLessThanOrEqual(1.15 * colour.hours + 1);
        // A third of luminance on each colour doubles the time of it alone.
        expect(2 * mono.jobs[0]!.unitSec!).toBeLessThanOrEqual(colour.jobs[0]!.unitSec!);
      }),
      runs(100, 3000),
    );
  });
  it("of a line object never falls when the filter is taken away", () => {
    fc.assert(
      fc.property(anyKit, anyLine, ({ aperture, ratio, sky }, line) => {
        const colour = rig(aperture, aperture * ratio, { isColour: true });
        expect(sec(colour, filter("Colour"), sky, line)).toBeGreaterThan(sec(colour, filter("Dual"), sky, line));
        expect(sec(rig(aperture, aperture * ratio), filter("L"), sky, line)).toBeGreaterThan(sec(rig(aperture, aperture * ratio), filter("Ha"), sky, line)); // prettier-ignore
      }),
      runs(200, 5000),
    );
  });
  it("is told beside the habit: at 21.0 six hours are six, and 2.5 mag brighter ten times as many for a faint object", () => {
    const kit = (sky: number) => ({ rig: rig(100, 550, { readNoiseE: 1e-3, darkEPerSec: 0 }), filters: LRGB, skyMagPerArcsec2: sky, seeingArcsec: 3 }); // prettier-ignore
    const faint = { ...NO_LIGHT, magPerArcsec2: 28 };
    expect(sameDepthHours(kit(21), "L", faint)).toBeCloseTo(6, 9);
    expect(sameDepthHours(kit(18.5), "L", faint) / 6).toBeCloseTo(10, 1);
  });
});

describe("the worth of a minute by the whole rate (MATHS 6.2)", () => {
  const base = rig(80, 480, { throughput: 1, quantumEfficiency: 0.55 });
  const band = (channel: Channel, nm: number): Filter => ({ ...filter(channel, nm), centreNm: 550, transmission: 1 });
  /** Share that moonlight of V 19.0 leaves, in the colour of the Moon of MATHS C6.15. */
  const share = (channel: Channel, nm: number, sky: number, moonColour: number, light: ObjectLight, subSec: number) => {
    const model = lightModel({ rig: base, filter: band(channel, nm), skyMagPerArcsec2: sky }, subSec);
    // All at 550 nm, as the check has it: a line of the base rig, whatever its band is called.
    const kind = { ...model.kinds[0]!, ha: model.kinds[0]!.ha || 1.87042e-2 * ((Math.PI / 4) * 0.08 ** 2) * 0.55 * model.pixelScaleArcsecPerPx ** 2, oiii: 0, sii: 0 }; // prettier-ignore
    const { object, rest } = besideSky({ ...model, kinds: [kind] }, light);
    const zenith = magToFluxRatio(sky + CHANNEL_FACTS[channel].skyOffsetMag);
    const moon = (magToFluxRatio(19) * moonColour) / zenith;
    return (object + 1 + rest) / (object + 1 + rest + moon);
  };
  const SITES = [21.5, 20.5, 19.5, 18.5];
  const GALAXY = { ...NO_LIGHT, magPerArcsec2: 24 };
  const line = (ha: number): ObjectLight => ({ ...NO_LIGHT, ha });
  it.each([
    ["L", 300, 1, GALAXY, 120, [0.102, 0.209, 0.392, 0.615]],
    ["R", 100, 0.8, GALAXY, 120, [0.209, 0.384, 0.605, 0.792]],
    ["B", 90, 1.25, GALAXY, 120, [0.047, 0.089, 0.179, 0.343]],
    ["Ha", 5, 0.73, line(20), 300, [0.255, 0.381, 0.566, 0.752]],
    ["OIII", 5, 1.12, line(20), 300, [0.148, 0.216, 0.348, 0.541]],
    ["Ha", 5, 0.73, line(200), 300, [0.416, 0.496, 0.626, 0.772]],
  ] as const)(
    "%s of %s nm keeps under the Moon what is printed (MATHS C6.15)",
    (channel, nm, moon, light, subSec, shares) => {
      // prettier-ignore
      shares.forEach((printed, i) =>
      expect(Math.abs(share(channel, nm, SITES[i]!, moon, light, subSec) - printed), `${SITES[i]}`).toBeLessThan(0.004),
    );
    },
  );
  it("makes an hour elsewhere an hour here by the object as well: 14.89 for one of 25.0, 3.96 for one of 20.0 (MATHS C4.6)", () => {
    // Base rig of MATHS: 0.72, L 300 nm at 550, dark .002, R 1.5, 120 s; 21.5 against 18.5.
    const kit = rig(80, 480, { throughput: 0.9, quantumEfficiency: 0.8, darkEPerSec: 0.002 });
    const own = (mag: number) => besideSky(lightModel({ rig: kit, filter: { ...filter("L"), transmission: 1 }, skyMagPerArcsec2: 18.5 }, 120), { ...NO_LIGHT, magPerArcsec2: mag }); // prettier-ignore
    expect(equivalentHours(21.5, 18.5, own(25))).toBeCloseTo(14.89, 1);
    expect(equivalentHours(21.5, 18.5, own(20))).toBeCloseTo(3.964, 2);
    const there = underSky(own(25), 18.5, 21.5);
    expect(equivalentHours(18.5, 21.5, there) * equivalentHours(21.5, 18.5, own(25))).toBeCloseTo(1, 9);
  });
});
