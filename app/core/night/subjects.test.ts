import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { unpackCatalog, type PackedCatalog } from "~/core/catalog";
import { CHANNEL_FACTS, typicalRig, type Channel, type Filter, type KitPresets } from "~/core/exposure";
import presets from "~/data/kit-presets.json";
import { nightDate } from "~/core/time";
import { placeNight, rankCatalog, USUAL_MOON, type Place } from ".";

const unpacked = unpackCatalog(JSON.parse(readFileSync("app/data/objects.json", "utf8")) as PackedCatalog);
if (!unpacked.ok) throw new Error("data does not unpack");
const entries = unpacked.value;
const kinds = presets as KitPresets;

const filters = (channels: readonly Channel[]): Filter[] => channels.map((channel) => ({ name: channel, channel, centreNm: CHANNEL_FACTS[channel].centreNm, bandwidthNm: CHANNEL_FACTS[channel].bandwidthNm, transmission: 0.9 })); // prettier-ignore
const MONO: readonly Channel[] = ["L", "R", "G", "B", "Ha", "OIII", "SII"];
function kit(apertureMm: number, focalMm: number, isColour: boolean) {
  const optics = { ...kinds.optics[0]!, apertureMm, focalMm, obstruction: 0 };
  const camera = kinds.cameras.find((c) => c.id === "c-aps-26")!;
  const rig = typicalRig("x", { optics, camera, mount: kinds.mounts.find((m) => m.guided)!, isColour }, []);
  return { rig, filters: filters(isColour ? ["Colour", "Dual"] : MONO) };
}
const RIGS = {
  lens: kit(48, 135, false),
  short: kit(72, 400, true),
  long: kit(200, 800, false),
  longest: kit(203, 2000, true),
};
const north: Place = {
  name: "North", latitudeDeg: 48, longitudeDeg: 10, elevationM: 300, timeZone: "UTC", skyMagPerArcsec2: 20.8, skyline: [], minAltitudeDeg: 20, seeingArcsec: 3, clearChance: Array<number>(12).fill(0.4),
}; // prettier-ignore
const PLACES = { north, south: { ...north, name: "South", latitudeDeg: -33, longitudeDeg: 149 } };
/** Nights near a new Moon. */
const NIGHTS = { Jan: "2027-01-08", Apr: "2027-04-06", Jul: "2027-07-04", Oct: "2026-10-10" } as const;

/** What a practitioner answers to "what is the subject of the month with that?": common practice, no source. Any of several names will do. */
const ANSWERS: readonly [keyof typeof PLACES, keyof typeof RIGS, keyof typeof NIGHTS, string][] = [
  ["north", "lens", "Jan", "IC 434"], ["north", "lens", "Jan", "NGC 2237"], ["north", "lens", "Jan", "NGC 1499"], ["north", "lens", "Jan", "M 42"],
  ["north", "lens", "Apr", "Markarian's Chain"], ["north", "lens", "Apr", "M 81 + M 82"],
  ["north", "lens", "Jul", "NGC 7000|Sh2-117"], ["north", "lens", "Jul", "NGC 6960|Cygnus Loop"], ["north", "lens", "Jul", "IC 1318B|IC 1318"],
  ["north", "lens", "Oct", "M 31"], ["north", "lens", "Oct", "IC 1805|IC 1805 + IC 1848"], ["north", "lens", "Oct", "IC 1396"], ["north", "lens", "Oct", "M 45"],
  ["north", "short", "Jan", "NGC 2264"], ["north", "short", "Jan", "M 42"], ["north", "short", "Jan", "IC 434"], ["north", "short", "Jan", "NGC 2237"], ["north", "short", "Jan", "IC 405"],
  ["north", "short", "Apr", "Arp 317"], ["north", "short", "Apr", "M 101"], ["north", "short", "Apr", "Markarian's Chain"], ["north", "short", "Apr", "M 13"],
  ["north", "short", "Jul", "NGC 6960"], ["north", "short", "Jul", "NGC 7000"], ["north", "short", "Jul", "NGC 6888"], ["north", "short", "Jul", "IC 5070"],
  ["north", "short", "Oct", "M 31"], ["north", "short", "Oct", "M 33"], ["north", "short", "Oct", "NGC 281"], ["north", "short", "Oct", "NGC 7380"],
  ["north", "long", "Jan", "M 82"], ["north", "long", "Jan", "M 1"], ["north", "long", "Jan", "IC 434|NGC 2024"],
  ["north", "long", "Apr", "M 51"], ["north", "long", "Apr", "M 101"], ["north", "long", "Apr", "NGC 4565"], ["north", "long", "Apr", "M 104"],
  ["north", "long", "Jul", "M 27"], ["north", "long", "Jul", "M 16"], ["north", "long", "Jul", "M 17"], ["north", "long", "Jul", "M 13"],
  ["north", "long", "Oct", "NGC 7331"], ["north", "long", "Oct", "NGC 891"], ["north", "long", "Oct", "M 33"], ["north", "long", "Oct", "NGC 7635"],
  ["north", "longest", "Apr", "M 51"], ["north", "longest", "Apr", "M 64"], ["north", "longest", "Apr", "M 104"],
  ["north", "longest", "Jul", "M 57"], ["north", "longest", "Jul", "M 27"], ["north", "longest", "Oct", "NGC 7331"],
  ["south", "lens", "Apr", "NGC 3372"], ["south", "lens", "Jul", "M 8"], ["south", "short", "Apr", "NGC 5139"], ["south", "short", "Jul", "M 16"],
  ["south", "short", "Oct", "NGC 253"], ["south", "long", "Apr", "NGC 5128"], ["south", "long", "Jul", "M 17"], ["south", "long", "Oct", "NGC 253"],
  ["south", "longest", "Apr", "M 83"],
]; // prettier-ignore

const lists = new Map<string, readonly string[]>();
function listOf(place: keyof typeof PLACES, rig: keyof typeof RIGS, month: keyof typeof NIGHTS): readonly string[] {
  const key = `${place} ${rig} ${month}`;
  const known = lists.get(key);
  if (known) return known;
  const night = placeNight(PLACES[place], nightDate(NIGHTS[month]), USUAL_MOON);
  const { ranked } = rankCatalog(entries, { night, ...RIGS[rig] });
  const ids = ranked.filter((t) => t.within === null).map((t) => entries[t.row]!.id);
  lists.set(key, ids);
  return ids;
}

describe("the subjects of the month", () => {
  const placed = ANSWERS.map(([place, rig, month, names]) => {
    const ids = listOf(place, rig, month);
    const at = names.split("|").map((n) => ids.indexOf(n)).filter((i) => i >= 0); // prettier-ignore
    return {
      what: `${names}, ${rig}, ${month}, ${place}`,
      at: at.length > 0 ? Math.min(...at) + 1 : Number.POSITIVE_INFINITY,
    };
  });
  it("are sixty", () => expect(ANSWERS).toHaveLength(60));
  it("stand in the first twenty, nine in ten of them, and none beyond the first forty", () => {
    const low = placed.filter((p) => p.at > 20);
    expect(low.length, low.map((p) => `${p.what}: ${p.at}`).join("\n")).toBeLessThanOrEqual(6);
    expect(placed.filter((p) => p.at > 40).map((p) => `${p.what}: ${p.at}`)).toEqual([]);
  });
});
