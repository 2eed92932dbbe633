import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { unpackCatalog, type PackedCatalog } from "~/core/catalog";
import presets from "~/data/kit-presets.json";
import { ceilingE, CHANNEL_FACTS, channelOffers, pictureOf, sharedHours, sharesFor, shortSetSec, subAdvice, typicalRig, type Channel, type Filter, type KitPresets } from "."; // prettier-ignore

const kinds = presets as KitPresets;
const filter = (channel: Channel, nm = CHANNEL_FACTS[channel].bandwidthNm): Filter => ({ name: channel, channel, centreNm: CHANNEL_FACTS[channel].centreNm, bandwidthNm: nm, transmission: 0.9 }); // prettier-ignore

/** Every kind of optics with every kind of camera on every mount, each with the filters it can have, from city to desert. */
const COMBINATIONS = kinds.optics.flatMap((optics) =>
  kinds.cameras.flatMap((camera) =>
    kinds.mounts.flatMap((mount) =>
      [17.5, 18.5, 19.5, 20.5, 21.8].flatMap((sky) => {
        const isColour = camera.colour ?? false;
        const rig = typicalRig("x", { optics, camera, mount, isColour }, []);
        const filters = isColour ? [filter("Colour"), filter("Dual")] : [filter("L"), filter("B"), filter("Ha", 7)];
        return filters.map((f) => ({ rig, filter: f, skyMagPerArcsec2: sky, seeingArcsec: 3, protectedMag: null }));
      }),
    ),
  ),
);

describe("sub lengths over all kinds of kit", () => {
  it("never let the sky fill more than 15 % of what a pixel holds, but for the shortest that there is (MATHS 3.16)", () => {
    expect(COMBINATIONS.length).toBeGreaterThan(1000);
    let bounded = 0;
    for (const at of COMBINATIONS) {
      const advice = subAdvice(at);
      // The pixel that sees most of the sky: red ones of a colour camera at worst 1.2 times as much as the one that decides.
      const filled = (advice.subSec * (advice.skyEPerPxSec + advice.darkEPerPxSec)) / ceilingE(at.rig);
      if (advice.subSec > 1) expect(filled).toBeLessThanOrEqual(0.15);
      if (advice.decidedBy === "sky") bounded++;
    }
    expect(bounded).toBeGreaterThan(20); // it decides somewhere
  });
  it("are as good as told: the range holds the length advised, within every limit", () => {
    for (const at of COMBINATIONS) {
      const { asGood, subSec, mountSec, rotationSec, skySec } = subAdvice(at);
      if (!asGood) continue;
      expect(asGood.fromSec).toBeLessThanOrEqual(subSec);
      expect(asGood.toSec).toBeGreaterThanOrEqual(subSec);
      expect(asGood.toSec).toBeLessThanOrEqual(Math.max(subSec, Math.min(mountSec, rotationSec, skySec)));
    }
  });
  it("of a short set are shorter than the main ones and than the mount's limit", () => {
    for (const at of COMBINATIONS.slice(0, 600))
      for (const coreMagPerArcsec2 of [null, 16]) {
        const advice = subAdvice({ ...at, coreMagPerArcsec2 });
        const long = subAdvice(at).subSec;
        const short = shortSetSec(advice, long);
        if (short === null) expect(long).toBeLessThanOrEqual(1);
        else {
          expect(short).toBeLessThan(long);
          expect(short).toBeLessThanOrEqual(Math.max(1, advice.mountSec));
        }
      }
  });
});

describe("channels offered beside those of a picture (MATHS 4.8, common practice)", () => {
  const unpacked = unpackCatalog(JSON.parse(readFileSync("app/data/objects.json", "utf8")) as PackedCatalog);
  if (!unpacked.ok) throw new Error("data does not unpack");
  const entryOf = (id: string) => unpacked.value.find((e) => e.id === id)!;
  const MONO: readonly Channel[] = ["L", "R", "G", "B", "Ha", "OIII", "SII"];
  const rig = typicalRig("x", { optics: kinds.optics[0]!, camera: kinds.cameras[0]!, mount: kinds.mounts[0]!, isColour: false }, []); // prettier-ignore
  const offersFor = (id: string) => {
    const { jobs } = pictureOf(entryOf(id), { rig, filters: MONO.map((c) => filter(c)), skyMagPerArcsec2: 20, seeingArcsec: 3 }); // prettier-ignore
    const first = Object.fromEntries(jobs.map((j) => [j.channel, j.hours]));
    return channelOffers(
      entryOf(id),
      MONO,
      jobs.map((j) => j.channel),
      first,
    );
  };
  it("are Ha for the hydrogen of M 31, M 33 and M 82, a quarter of the broad light", () => {
    for (const id of ["M 31", "M 33", "M 82"]) {
      const [offer] = offersFor(id);
      expect(offer?.why).toBe("hydrogen");
      expect(offer!.channels.map((c) => c.channel)).toEqual(["Ha"]);
    }
  });
  it("are natural stars beside a nebula in lines, its reflected light beside M 42, and nothing beside a cluster", () => {
    expect(offersFor("NGC 7000")[0]).toMatchObject({ why: "stars", channels: [{ channel: "R", hours: 0.5 }, { channel: "G" }, { channel: "B" }] }); // prettier-ignore
    expect(offersFor("M 42")[0]?.why).toBe("reflected");
    expect(offersFor("M 37")).toEqual([]);
  });
  it("share hours in the ratios of the trade: 3 : 4 : 4, 1 : 2, 3 : 1 : 1 : 1 and a fifth for Ha (MATHS C4.13)", () => {
    const of = (channels: readonly Channel[], share: Parameters<typeof sharedHours>[0], sum: number) =>
      sharedHours(share, sum, channels.map((channel) => ({ channel, question: {} as never, subSec: 60 })), 25).map((h) => Math.round(h * 100) / 100); // prettier-ignore
    expect(of(["Ha", "OIII", "SII"], "narrow344", 11)).toEqual([3, 4, 4]);
    expect(of(["Ha", "OIII"], "narrow12", 9)).toEqual([3, 6]);
    expect(of(["L", "R", "G", "B"], "broad3111", 12)).toEqual([6, 2, 2, 2]);
    expect(of(["L", "R", "G", "B", "Ha"], "broad41", 15)).toEqual([6, 2, 2, 2, 3]);
    expect(sharesFor(["Ha", "OIII"])).toContain("narrow12");
    expect(sharesFor(["L", "R", "G", "B", "Ha"])).toContain("broad41");
  });
});
