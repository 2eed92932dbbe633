import { readFile } from "node:fs/promises";
import { encode } from "fast-png";
import { starZones, unpackCatalog, unpackStars, type PackedCatalog } from "~/core/catalog";
import { simulatedTile, type SimulatedSky } from "~/core/survey";
import objectsUrl from "~/data/objects.json?url";
import starsUrl from "~/data/stars.bin?url";

/** Pictures at hand, the last asked for at the end; about 100 kB each. */
const KEPT = 200;
const made = new Map<string, Uint8Array<ArrayBuffer>>();
let sky: Promise<SimulatedSky> | null = null;

/** Reads a file that the browser gets too, from where the server has it. */
const shipped = (url: string): Promise<Buffer> =>
  readFile(import.meta.env.DEV ? `.${url}` : `build/client/${url.slice(url.indexOf("assets/"))}`);

async function readSky(): Promise<SimulatedSky> {
  const [starBytes, objectText] = await Promise.all([shipped(starsUrl), shipped(objectsUrl)]);
  const stars = unpackStars(new Uint8Array(starBytes));
  const objects = unpackCatalog(JSON.parse(objectText.toString("utf8")) as PackedCatalog);
  if (!stars.ok) throw new Error(`star file: ${stars.error.reason}`);
  if (!objects.ok) throw new Error(`catalogue file: ${objects.error.reason}`);
  return { stars: starZones(stars.value), objects: objects.value };
}

/** A tile of the simulated sky as PNG, made when it is first asked for. */
export async function simulatedPicture(order: number, tile: number): Promise<Uint8Array<ArrayBuffer>> {
  const key = `${order}/${tile}`;
  const known = made.get(key);
  if (known) {
    made.delete(key);
    made.set(key, known);
    return known;
  }
  sky ??= readSky().catch((error: unknown) => {
    sky = null;
    throw error;
  });
  const { sidePx, rgba } = simulatedTile(order, tile, await sky);
  const data = new Uint8Array(3 * sidePx * sidePx);
  for (let i = 0; i < sidePx * sidePx; i++) data.set(rgba.subarray(4 * i, 4 * i + 3), 3 * i);
  const png = new Uint8Array(
    encode({ width: sidePx, height: sidePx, data, channels: 3, depth: 8 }, { zlib: { level: 3 } }),
  );
  made.set(key, png);
  const [oldest] = made.keys();
  if (made.size > KEPT && oldest !== undefined) made.delete(oldest);
  return png;
}
