import { ALL_SKY_ORDER, allSkyPath, allSkyTiles, tilePath, type Survey, type TilePixels } from "~/core/survey";
import { KeptFiles, type FilesKept } from "./kept-files";

/** Pictures taken apart that are at hand, bytes; and files kept in the browser for nights without a network. */
const MOST_AT_HAND = 150_000_000;
const MOST_KEPT = 200_000_000;
const KEPT_IN = "zenithar-sky";
const ALL_SKY_WITHIN_MS = 15_000;

/** What is kept of the surveys in this browser. */
export type KeptTiles = FilesKept;

/** A survey could not be asked. */
export class SurveyTrouble extends Error {}

let opening: Promise<KeptFiles | null> | null = null;
const keeper = (): Promise<KeptFiles | null> => (opening ??= KeptFiles.open(KEPT_IN, MOST_KEPT));

/** Where a survey's file is asked for. */
const urlOf = (id: string, path: string): string => `${self.location.origin}/services/survey/${id}/${path}`;

/** A file of a survey, kept or fetched; null = the survey has none there. Rejects with `SurveyTrouble` where it cannot be asked. */
export async function surveyFileOf(id: string, path: string, signal: AbortSignal): Promise<Blob | null> {
  const url = urlOf(id, path);
  const home = await keeper();
  const known = await home?.find(url);
  if (known) return known;
  let response: Response;
  try {
    response = await fetch(url, { signal });
  } catch (error) {
    signal.throwIfAborted();
    throw new SurveyTrouble(error instanceof Error ? error.message : "it cannot be reached");
  }
  if (response.status === 404) return null;
  if (!response.ok) throw new SurveyTrouble(`it answered ${response.status}`);
  const file = await response.blob();
  await home?.keep(url, file);
  return file;
}

/** What is kept. */
export const keptTiles = async (): Promise<KeptTiles> =>
  (await keeper())?.told() ?? { files: 0, bytes: 0, mostBytes: MOST_KEPT };

/** Throws away all that is kept. */
export async function forgetTiles(): Promise<void> {
  opening = null;
  if (typeof caches !== "undefined") await caches.delete(KEPT_IN);
}

/** Takes a picture apart; null where it is none. */
async function pixelsOf(file: Blob): Promise<ImageData | null> {
  const picture = await createImageBitmap(file, { colorSpaceConversion: "none", premultiplyAlpha: "none" }).catch(
    () => null,
  );
  if (!picture) return null;
  const ctx = new OffscreenCanvas(picture.width, picture.height).getContext("2d", { willReadFrequently: true });
  ctx?.drawImage(picture, 0, 0);
  const pixels = ctx?.getImageData(0, 0, picture.width, picture.height) ?? null;
  picture.close();
  return pixels;
}

/** Tiles of one survey that are at hand, those used last at the end; null = there is none at that place. */
export class Tiles {
  private readonly atHand = new Map<string, TilePixels | null>();
  private bytes = 0;
  private allSky: Promise<void> | null = null;

  constructor(
    readonly id: string,
    readonly survey: Survey,
  ) {}

  /** A tile that is at hand. */
  readonly of = (order: number, tile: number): TilePixels | null => {
    const key = `${order}/${tile}`;
    const found = this.atHand.get(key);
    if (!found) return null;
    this.atHand.delete(key);
    this.atHand.set(key, found);
    return found;
  };

  private put(key: string, pixels: TilePixels | null): void {
    this.atHand.set(key, pixels);
    this.bytes += pixels?.rgba.byteLength ?? 0;
    for (const [oldest, its] of this.atHand) {
      if (this.bytes <= MOST_AT_HAND) break;
      this.atHand.delete(oldest);
      this.bytes -= its?.rgba.byteLength ?? 0;
    }
  }

  /** Whether it is known what lies there. */
  isKnown(order: number, tile: number): boolean {
    return this.atHand.has(`${order}/${tile}`);
  }

  /** Fetches a tile to hand. */
  async fetch(order: number, tile: number, signal: AbortSignal): Promise<void> {
    if (this.isKnown(order, tile)) return;
    const file = await surveyFileOf(this.id, tilePath(order, tile, this.survey.format), signal);
    const pixels = file ? await pixelsOf(file) : null;
    if (this.isKnown(order, tile)) return;
    this.put(`${order}/${tile}`, pixels ? { sidePx: pixels.width, rgba: pixels.data } : null);
  }

  /** Fetches the one picture of all the sky, where the survey has one, so that no chart stays blank. Tried once, whoever has gone on meanwhile. */
  fetchAllSky(): Promise<void> {
    return (this.allSky ??= this.readAllSky());
  }

  private async readAllSky(): Promise<void> {
    if (this.survey.orderMin > ALL_SKY_ORDER) return;
    const stop = AbortSignal.timeout(ALL_SKY_WITHIN_MS);
    const file = await surveyFileOf(this.id, allSkyPath(this.survey.format), stop).catch(() => null);
    const pixels = file ? await pixelsOf(file) : null;
    const tiles = pixels ? allSkyTiles(pixels.width, pixels.data) : null;
    tiles?.forEach((small, tile) => this.small.set(tile, small));
  }

  /** Small tiles out of the one picture: they stand in where the whole ones are not at hand, and never keep those from being fetched. */
  private readonly small = new Map<number, TilePixels>();

  /** What there is for a place: the tile itself, or the small one of it. */
  readonly ofOrSmall = (order: number, tile: number): TilePixels | null =>
    this.of(order, tile) ?? (order === ALL_SKY_ORDER ? (this.small.get(tile) ?? null) : null);
}
