import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { starZones, unpackStars } from "~/core/catalog";
import { skyRate } from "~/core/exposure";
import { testFilter, testRig } from "~/core/test-data";
import { utcMs } from "~/core/time";
import { exposureFrame, frameSeed, type FrameAsk } from ".";
import { fieldStars } from "./field-stars";

const table = unpackStars(new Uint8Array(readFileSync(new URL("../../data/stars.bin", import.meta.url))));
if (!table.ok) throw new Error("stars");
const stars = starZones(table.value);

const light: Extract<FrameAsk["scene"], { kind: "light" }> = {
  kind: "light",
  pointing: { frame: "icrs", raDeg: 312.75, decDeg: 30.7 },
  positionAngleDeg: 25,
  subject: null,
  passes: 0.8,
  skyOver: 1.4,
  zenithSkyMag: 20.5,
  fwhmArcsec: 5,
  trailArcsec: { x: 0, y: 0 },
};
const ask: FrameAsk = {
  scene: light,
  rig: testRig,
  filter: testFilter,
  startMs: utcMs(Date.parse("2026-12-05T19:00:00Z")),
  exposureSec: 300,
  object: "Test P1",
  sensorC: -10,
  airC: 2,
  focusSteps: 4000,
  pierSide: "east",
  site: { latitudeDeg: 45, longitudeDeg: 5 },
  cropPx: 512,
  seed: 7,
};

/** A reader of its own, after the FITS Standard 4.0 alone: cards of 80, blocks of 2880, big-endian with BZERO. */
function readBack(bytes: Uint8Array) {
  const text = Buffer.from(bytes).toString("latin1");
  const cards = new Map<string, string>();
  let end = 0;
  for (; !text.startsWith("END", end); end += 80) {
    const card = text.slice(end, end + 80);
    cards.set(card.slice(0, 8).trim(), card.slice(10, 80).split(" /")[0]!.trim());
  }
  const dataAt = Math.ceil((end + 80) / 2880) * 2880;
  const [width, height] = [Number(cards.get("NAXIS1")), Number(cards.get("NAXIS2"))];
  const view = new DataView(bytes.buffer, bytes.byteOffset + dataAt);
  const counts = Float64Array.from({ length: width * height }, (_, i) => view.getInt16(2 * i) + Number(cards.get("BZERO"))); // prettier-ignore
  return { cards, width, height, counts, isWhole: bytes.length % 2880 === 0 };
}
const take = (more: Partial<FrameAsk>) => readBack(exposureFrame({ ...ask, ...more }, stars));
const mean = (list: ArrayLike<number>) => Array.from(list).reduce((a, b) => a + b, 0) / list.length;
const variance = (list: ArrayLike<number>) => {
  const m = mean(list);
  return Array.from(list).reduce((a, b) => a + (b - m) ** 2, 0) / (list.length - 1);
};
/** Half the variance of the difference of two frames: noise without what both have in common. */
const pairVariance = (a: Float64Array, b: Float64Array) => variance(a.map((v, i) => v - b[i]!)) / 2;

describe("frames of the stand-in observatory", () => {
  it("give gain and reading noise back by photon transfer within 3 % (Janesick, Photon Transfer, SPIE 2007; pairs of flats and of bias)", () => {
    const rig = { ...testRig, readNoiseE: 3.2, gainEPerAdu: 0.8, fullWellE: 50_000 };
    const pair = (kind: "flat" | "bias") => [1, 2].map((seed) => take({ rig, scene: { kind }, exposureSec: 0, seed }).counts); // prettier-ignore
    const [bias, bias2] = pair("bias") as [Float64Array, Float64Array];
    // The middle alone, where vignetting is a per mille.
    const middle = (c: Float64Array) =>
      c.filter((_, i) => Math.abs((i % 512) - 256) < 60 && Math.abs(i / 512 - 256) < 60);
    const [flat, flat2] = pair("flat").map(middle) as [Float64Array, Float64Array];
    const signal = mean(flat) - mean(bias);
    const gain = signal / (pairVariance(flat, flat2) - pairVariance(bias, bias2));
    expect(Math.abs(gain / 0.8 - 1)).toBeLessThan(0.03);
    // Rounding to whole counts adds a twelfth.
    const noise = Math.sqrt(pairVariance(bias, bias2) - 1 / 12) * gain;
    expect(Math.abs(noise / 3.2 - 1)).toBeLessThan(0.03);
    expect(Math.abs(mean(bias) - 500)).toBeLessThan(0.1);
    expect(mean(flat) * 0.8).toBeGreaterThan(20_000);
  });

  it("keep the statistics of few electrons: mean and variance of darks and of the narrow sky", () => {
    const rig = { ...testRig, readNoiseE: 1.5, gainEPerAdu: 0.25 };
    for (const [dark, sec] of [
      [0.002, 300],
      [0.05, 300],
      [0.097, 300],
      [0.11, 300],
      [0.5, 600],
    ] as const) {
      const { counts } = take({ rig: { ...rig, darkEPerSec: dark }, scene: { kind: "dark" }, exposureSec: sec });
      const e = dark * sec;
      expect(Math.abs((mean(counts) - 500) * 0.25 - e)).toBeLessThan(0.02 + 0.004 * e);
      expect(Math.abs((variance(counts) * 0.25 ** 2) / (e + 1.5 ** 2) - 1)).toBeLessThan(0.02);
    }
  });

  it("hold the light of a star to 2 %, its place to 1″ and its width to 3 %, by an aperture and by moments", () => {
    // A wide band, so that many stars are bright enough to be judged.
    const filter = { ...testFilter, bandwidthNm: 100 };
    const found = fieldStars(stars, light.pointing, 0.4, 16);
    const { cards, counts, width } = take({
      filter,
      cropPx: 1024,
      exposureSec: 1200,
      rig: { ...testRig, darkEPerSec: 0, fullWellE: 1e6, gainEPerAdu: 16 },
    });
    const value = (name: string) => Number(cards.get(name));
    const rad = Math.PI / 180;
    let checked = 0;
    for (const star of found) {
      // Gnomonic projection after Calabretta & Greisen 2002, A&A 395, 1077; solved for pixels by the inverse of CD.
      const [a0, d0] = [value("CRVAL1") * rad, value("CRVAL2") * rad];
      const [a, d] = [star.at.raDeg * rad, star.at.decDeg * rad];
      const cos = Math.sin(d0) * Math.sin(d) + Math.cos(d0) * Math.cos(d) * Math.cos(a - a0);
      const xi = (Math.cos(d) * Math.sin(a - a0)) / cos / rad;
      const eta = (Math.cos(d0) * Math.sin(d) - Math.sin(d0) * Math.cos(d) * Math.cos(a - a0)) / cos / rad;
      const [c11, c12, c21, c22] = ["CD1_1", "CD1_2", "CD2_1", "CD2_2"].map(value) as [number, number, number, number];
      const det = c11 * c22 - c12 * c21;
      const x = value("CRPIX1") - 1 + (c22 * xi - c12 * eta) / det;
      const y = value("CRPIX2") - 1 + (c11 * eta - c21 * xi) / det;
      const isAlone = found.every((o) => o === star || o.magnitude > star.magnitude + 5 || Math.hypot((o.at.raDeg - star.at.raDeg) * Math.cos(d0), o.at.decDeg - star.at.decDeg) > 0.008); // prettier-ignore
      if (!isAlone || Math.min(x, y) < 20 || Math.max(x, y) > width - 20) continue;
      const ring: number[] = [];
      for (let py = Math.round(y) - 18; py <= Math.round(y) + 18; py++)
        for (let px = Math.round(x) - 18; px <= Math.round(x) + 18; px++)
          if (Math.hypot(px - x, py - y) > 12) ring.push(counts[py * width + px]!);
      const sky = ring.sort((p, q) => p - q)[ring.length >> 1]!;
      let [sum, near, sx, sy, sr] = [0, 0, 0, 0, 0];
      for (let py = Math.round(y) - 10; py <= Math.round(y) + 10; py++)
        for (let px = Math.round(x) - 10; px <= Math.round(x) + 10; px++) {
          const v = counts[py * width + px]! - sky;
          if (Math.hypot(px - x, py - y) > 10) continue;
          sum += v;
          sx += v * (px - x);
          sy += v * (py - y);
          if (Math.hypot(px - x, py - y) > 6) continue; // 4.5 σ: farther out there is noise alone
          near += v;
          sr += v * ((px - x) ** 2 + (py - y) ** 2);
        }
      // AB zero point by hand: 5.48e10/λ photons a second, m² and nm (Oke & Gunn 1983), 80 mm, 5 nm, all efficiencies.
      const area = Math.PI * 0.04 ** 2;
      const electrons = (5.4799e10 / 656.3) * 100 * area * 0.9 * 0.9 * 0.8 * 10 ** (-0.4 * star.magnitude) * 0.8 * 1200;
      if (electrons < 120_000 || electrons > 3e6) continue;
      checked++;
      expect(Math.abs((sum * 16) / electrons - 1)).toBeLessThan(0.02);
      expect(Math.hypot(sx / sum, sy / sum) * 1.616).toBeLessThan(1);
      const fwhm = 2.3548 * Math.sqrt(sr / near / 2) * 1.616;
      expect(Math.abs(fwhm / 5 - 1)).toBeLessThan(0.03);
    }
    expect(checked).toBeGreaterThan(5);
  });

  it("have the sky of the model over the field, and the object's light where the object is", () => {
    const centre = light.pointing;
    const subject = { centre, majorArcmin: 4, minorArcmin: 2, positionAngleDeg: 25, light: { ha: 2000, oiii: 0, sii: 0, magPerArcsec2: null } }; // prettier-ignore
    const { counts, width } = take({ scene: { ...light, subject } });
    const at = (x: number, y: number) => {
      const box: number[] = [];
      for (let dy = -6; dy <= 6; dy++) for (let dx = -6; dx <= 6; dx++) box.push(counts[(y + dy) * width + x + dx]!);
      return ((box.sort((a, b) => a - b)[box.length >> 1]! - 500) * 0.25) / 300;
    };
    const reception = { centreNm: 656.3, bandwidthNm: 5, areaM2: Math.PI * 0.04 ** 2, efficiency: 0.9 * 0.9 * 0.8, pixelScaleArcsecPerPx: 1.6157 }; // prettier-ignore
    const sky = skyRate(reception, 20.5 + 0.5) * 1.4; // the offset of Ha is told by the channel's own facts, within half a magnitude
    expect(at(40, 40)).toBeGreaterThan(sky / 2);
    expect(at(40, 40)).toBeLessThan(sky * 2.5);
    // A rayleigh gives 1.87042e-2 a second, m² and square arcsec (Hunten et al. 1956): four times the edge in the middle.
    const middle = 4 * 2000 * 1.87042e-2 * reception.areaM2 * reception.efficiency * 1.6157 ** 2 * 0.8;
    expect(Math.abs((at(256, 256) - at(40, 40)) / middle - 1)).toBeLessThan(0.05);
    // Its long axis runs along the rows' up, as both are turned by 25°; 1.5′ up is inside, 1.5′ to the right is not.
    expect(at(256, 256 + 55) - at(40, 40)).toBeGreaterThan(0.2 * middle);
    expect(at(256 + 55, 256) - at(40, 40)).toBeLessThan(0.1 * middle);
  });

  it("trail as the mount lets them, are the same for the same seed and others for another", () => {
    const trailed = take({ scene: { ...light, trailArcsec: { x: 12, y: 0 } }, rig: { ...testRig, fullWellE: 1e6, gainEPerAdu: 10 } }); // prettier-ignore
    const once = take({}).counts;
    expect(trailed.isWhole).toBe(true);
    const peak = trailed.counts.indexOf(trailed.counts.reduce((a, b) => Math.max(a, b)));
    const sky = trailed.counts.toSorted()[trailed.counts.length >> 1]! + 2;
    const spread = (step: number) => {
      let [sum, second] = [0, 0];
      for (let k = -9; k <= 9; k++) {
        const v = Math.max(0, trailed.counts[peak + k * step]! - sky);
        sum += v;
        second += v * k * k;
      }
      return second / sum;
    };
    expect(spread(1)).toBeGreaterThan(1.5 * spread(trailed.width));
    const isSame = (more: Partial<FrameAsk>) => take(more).counts.every((v, i) => v === once[i]);
    expect(isSame({})).toBe(true);
    expect(isSame({ seed: 8 })).toBe(false);
    expect(frameSeed(1, "a", 5000)).not.toBe(frameSeed(1, "a", 6000));
  });

  it("are marked as simulated, and carry what a camera writes", () => {
    const { cards } = take({});
    expect(Object.fromEntries(cards)).toMatchObject({
      SIMULATD: "T",
      IMAGETYP: "'Light Frame'",
      "DATE-OBS": "'2026-12-05T19:00:00.000'",
      EXPTIME: "300",
      FILTER: "'Ha 5 nm '",
      XBINNING: "1",
      "CCD-TEMP": "-10",
      FOCUSPOS: "4000",
    });
  });

  it("fill a field with as many stars as there are, always the same, more of them in the Milky Way", () => {
    const at = (raDeg: number, decDeg: number, faintest: number) => fieldStars(stars, { frame: "icrs", raDeg, decDeg }, 1, faintest); // prettier-ignore
    const cygnus = at(312.75, 30.7, 13);
    expect(at(312.75, 30.7, 13)).toEqual(cygnus);
    // Deeper adds stars and moves none; 0 h and the pole are no borders.
    const deeper = new Set(at(312.75, 30.7, 14).map((s) => `${s.at.raDeg} ${s.at.decDeg}`));
    expect(cygnus.every((s) => deeper.has(`${s.at.raDeg} ${s.at.decDeg}`))).toBe(true);
    expect(cygnus.length).toBeGreaterThan(2 * at(192.9, 27.1, 13).length);
    const [left, right] = [at(359.6, 10, 13), at(0.4, 10, 13)].map((l) => new Set(l.map((s) => s.at.raDeg)));
    expect([...left!].filter((ra) => right!.has(ra)).length).toBeGreaterThan(20);
    expect(at(0, 89.7, 12).length).toBeGreaterThan(40);
  });
});
