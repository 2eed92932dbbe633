import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { unpackCatalog, type CatalogEntry, type PackedCatalog } from "~/core/catalog";
import { channelAdvice, CHANNELS, CHANNEL_FACTS, pictureOf, type Channel, type Filter } from ".";
import { testRig } from "~/core/test-data";

const unpacked = unpackCatalog(JSON.parse(readFileSync("app/data/objects.json", "utf8")) as PackedCatalog);
if (!unpacked.ok) throw new Error("data does not unpack");
const curated = unpacked.value.filter((e) => e.curated);
const MONO: readonly Channel[] = ["L", "R", "G", "B", "Ha", "OIII", "SII"];
const filterOf = (channel: Channel): Filter => ({
  name: channel,
  channel,
  ...CHANNEL_FACTS[channel],
  transmission: 0.9,
});
const KEY = { Ha: "ha", OIII: "oiii", SII: "sii" } as const;
const isLine = (c: Channel): c is keyof typeof KEY => c in KEY;

describe("channel advice over all hand-picked targets (line strengths: ../data/curated.json as packed)", () => {
  it("never recommends, wants or misses a line of strength 0, whatever the rig has (law)", () => {
    expect(curated.length).toBeGreaterThan(290);
    fc.assert(
      fc.property(fc.subarray([...CHANNELS], { minLength: 1 }), (atHand) => {
        for (const entry of curated) {
          const { wanted, use, missing, lead } = channelAdvice(entry, atHand);
          for (const c of [...wanted, ...use, ...missing, lead])
            if (isLine(c)) expect(entry.curated!.lines?.[KEY[c]] ?? 0, `${entry.id} ${c}`).toBeGreaterThan(0);
          for (const c of use) expect(atHand).toContain(c);
          for (const c of missing) expect(atHand).not.toContain(c);
        }
      }),
      { numRuns: 60 },
    );
  });
  it("gives hydrogen beside reflected light Ha and broad bands: all 13 mixed targets without OIII", () => {
    const reflecting = curated.filter((e) => e.curated!.light === "mixed" && e.curated!.lines?.oiii === 0);
    expect(reflecting.length).toBeGreaterThan(10);
    for (const e of reflecting) expect(channelAdvice(e, MONO).use, e.id).toEqual(expect.arrayContaining(["Ha", "L"]));
  });
  it("gives continuum targets no line, and leads with the strongest line of the others", () => {
    for (const e of curated) {
      const { use, lead } = channelAdvice(e, MONO);
      const { light, lines } = e.curated!;
      if (light === "continuum") expect(use, e.id).toEqual(["L", "R", "G", "B"]);
      else if (isLine(lead)) expect(lines![KEY[lead]], e.id).toBe(Math.max(lines!.ha, lines!.oiii, lines!.sii));
    }
  });
});

it("says what a rig lacks instead of promising an hour of luminance", () => {
  const veil = curated.find((e) => e.id === "NGC 6960")!;
  expect(channelAdvice(veil, ["L"])).toMatchObject({
    use: [],
    missing: expect.arrayContaining(["OIII", "Ha"]) as unknown,
  });
  const hours = (channels: readonly Channel[]) =>
    pictureOf(veil, { rig: testRig, filters: channels.map(filterOf), skyMagPerArcsec2: 20, seeingArcsec: 3 }).jobs.map((j) => j.channel); // prettier-ignore
  expect(hours(["L"])).toEqual(expect.arrayContaining(["OIII", "Ha"]));
  expect(hours(["Colour", "Dual"])).toEqual(["Dual"]);
});

it("covers both lines by a dual-band filter but never sulphur", () => {
  const e = { ...curated[0]!, curated: { ...curated[0]!.curated!, light: "Ha", lines: { ha: 3, oiii: 2, sii: 2 } } } as CatalogEntry; // prettier-ignore
  expect(channelAdvice(e, ["Colour", "Dual"])).toMatchObject({ use: ["Dual"], missing: ["SII"] });
  expect(channelAdvice(e, ["Colour"])).toMatchObject({ use: ["Colour"], missing: ["SII"] });
});
