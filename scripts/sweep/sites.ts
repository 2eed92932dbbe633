import { CHANNEL_FACTS, typicalRig, type Channel, type Filter, type KitPresets, type Rig } from "~/core/exposure";
import type { Place } from "~/core/night";
import presets from "~/data/kit-presets.json";

const kinds = presets as KitPresets;
const find = <T extends { readonly id: string }>(list: readonly T[], id: string): T => {
  const found = list.find((x) => x.id === id);
  if (!found) throw new Error(`no preset ${id}`);
  return found;
};

const site = (name: string, latitudeDeg: number, longitudeDeg: number, skyMagPerArcsec2: number, minAltitudeDeg = 25): Place => ({
  name, latitudeDeg, longitudeDeg, elevationM: 200, timeZone: "UTC", skyMagPerArcsec2, skyline: [], minAltitudeDeg, seeingArcsec: 3, clearChance: Array<number>(12).fill(0.4),
}); // prettier-ignore

/** Invented gardens from city to desert, north and south. */
export const SITES: readonly Place[] = [
  site("inner city, 52° N", 52.5, 13.4, 18.2),
  site("city, 48° N", 48.1, 11.6, 18.6),
  site("suburb, 51° N", 51.4, 0.1, 19.4),
  site("small town, 45° N", 45.2, 5.7, 20.1),
  site("village, 50° N", 50.2, 10.1, 20.9),
  site("hills, 43° N", 43.3, 2.8, 21.5),
  site("mountain, 37° N", 37.2, -3.4, 21.8),
  site("desert, 31° N", 31.1, -7.9, 21.9),
  site("north, 60° N", 60.4, 10.5, 20.6),
  site("city, 34° S", -33.9, 151.1, 18.4),
  site("farm, 31° S", -31.3, 149.1, 21.7),
  site("suburb, 37° S", -37.0, 174.9, 19.6),
];

/** A rig with its filters. */
export interface SweptKit {
  readonly name: string;
  readonly rig: Rig;
  readonly filters: readonly Filter[];
}

const filters = (channels: readonly Channel[], narrowNm = 5): Filter[] =>
  channels.map((channel) => {
    const { centreNm, bandwidthNm } = CHANNEL_FACTS[channel];
    return { name: channel, channel, centreNm, bandwidthNm: bandwidthNm < 20 && channel !== "Dual" ? narrowNm : bandwidthNm, transmission: 0.9 }; // prettier-ignore
  });

function kit(
  name: string,
  at: { readonly apertureMm: number; readonly focalMm: number; readonly obstruction?: number; readonly camera: string; readonly isColour?: boolean; readonly isStock?: boolean }, // prettier-ignore
  channels: readonly Channel[],
): SweptKit {
  const base = kinds.optics[0]!;
  const optics = { ...base, apertureMm: at.apertureMm, focalMm: at.focalMm, obstruction: at.obstruction ?? 0 };
  const mount = kinds.mounts.find((m) => m.guided)!;
  const rig = typicalRig(name, { optics, camera: find(kinds.cameras, at.camera), mount, isColour: at.isColour ?? false, ...(at.isStock ? { isStock: true } : {}) }, []); // prettier-ignore
  return { name, rig, filters: filters(channels) };
}

const LRGB = ["L", "R", "G", "B"] as const;
const SHO = ["Ha", "OIII", "SII"] as const;

/** Ten ways to stand in a garden. */
export const KITS: readonly SweptKit[] = [
  kit("50 mm lens, photo camera as sold", { apertureMm: 18, focalMm: 50, camera: "p-aps-24", isColour: true, isStock: true }, ["Colour"]), // prettier-ignore
  kit("135 mm lens, photo camera as sold", { apertureMm: 48, focalMm: 135, camera: "p-aps-24", isColour: true, isStock: true }, ["Colour"]), // prettier-ignore
  kit("135 mm lens, mono with lines", { apertureMm: 48, focalMm: 135, camera: "c-aps-26" }, [...LRGB, ...SHO]),
  kit("61 mm refractor, colour", { apertureMm: 61, focalMm: 360, camera: "c-aps-26", isColour: true }, ["Colour"]),
  kit("61 mm refractor, colour and dual band", { apertureMm: 61, focalMm: 360, camera: "c-aps-26", isColour: true }, ["Colour", "Dual"]), // prettier-ignore
  kit("80 mm refractor, mono", { apertureMm: 80, focalMm: 480, camera: "c-aps-26" }, [...LRGB, ...SHO]),
  kit("100 mm refractor, L R G B", { apertureMm: 100, focalMm: 550, camera: "c-aps-26" }, LRGB),
  kit("130 mm reflector, photo camera modified", { apertureMm: 130, focalMm: 650, obstruction: 0.4, camera: "p-aps-24", isColour: true }, ["Colour"]), // prettier-ignore
  kit("200 mm reflector, mono", { apertureMm: 200, focalMm: 800, obstruction: 0.35, camera: "c-aps-26" }, [...LRGB, ...SHO]), // prettier-ignore
  kit("200 mm catadioptric at 2000 mm, colour", { apertureMm: 203, focalMm: 2000, obstruction: 0.35, camera: "c-aps-26", isColour: true }, ["Colour", "Dual"]), // prettier-ignore
];

/** A new Moon in winter and in summer, a half Moon, a full Moon. */
export const NIGHTS = ["2027-01-07", "2027-06-05", "2026-10-18", "2026-12-23"] as const;
