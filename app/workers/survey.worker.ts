import { expose, transfer } from "comlink";
import { starZones, unpackStars, type CatalogEntry, type StarZones } from "~/core/catalog";
import { chartView, type MosaicLayout } from "~/core/framing";
import {
  drawSurvey,
  orderFor,
  readSurvey,
  tilePath,
  tilesAround,
  type Survey,
  type SurveyFault,
  type SurveyLook,
} from "~/core/survey";
import type { Equatorial } from "~/core/sky";
import { ok, err, type Result } from "~/core/result";
import { drawSmallPicture, type Backdrop, type ChartAsked, type Ink } from "~/drawing";
import starsUrl from "~/data/stars.bin?url";
import { KeptFiles } from "./kept-files";
import { forgetTiles, keptTiles, surveyFileOf, SurveyTrouble, Tiles } from "./survey-tiles";

/** A picture that is wanted. */
export interface PictureAsked {
  /** The survey's name on this server. */
  readonly id: string;
  readonly survey: Survey;
  readonly chart: ChartAsked;
  readonly look: SurveyLook;
}

/** A small picture that is wanted. */
export interface SmallPictureAsked {
  /** What tells it from all others: the same name is the same picture, kept in this browser. */
  readonly name: string;
  readonly chart: ChartAsked;
  readonly ink: Ink;
  /** What is drawn of the objects there; only asked for where the picture is not kept. */
  readonly objects: readonly CatalogEntry[];
  readonly frame: MosaicLayout | null;
  /** A survey in place of what is drawn; null = stars and patches. */
  readonly survey: Omit<PictureAsked, "chart"> | null;
}

/** A picture as far as it has come. */
export interface SurveyPicture {
  readonly image: ImageBitmap;
  /** Nothing finer comes. */
  readonly isWhole: boolean;
}

/** Why a survey cannot be read: its own words are wrong, or it cannot be asked. */
export type SurveyRefusal = SurveyFault | { readonly code: "silent" };

/** A part of the sky to be kept for nights without a network. */
export interface FieldToKeep {
  readonly id: string;
  readonly survey: Survey;
  readonly centre: Equatorial<"icrs">;
  readonly radiusDeg: number;
}

const AT_ONCE = 6;
const SMALL_WITHIN_MS = 20_000;
/** How much coarser the first tiles are that are fetched for a chart: a sixteenth as many. */
const FIRST_COARSER = 2;

const surveys = new Map<string, Tiles>();
function tilesOf(id: string, survey: Survey): Tiles {
  const known = surveys.get(id);
  if (known) return known;
  const tiles = new Tiles(id, survey);
  surveys.set(id, tiles);
  return tiles;
}

/** Does something for each of a list, some at once; stops at the first that fails. */
async function forEach<T>(list: readonly T[], deed: (item: T) => Promise<void>): Promise<void> {
  let next = 0;
  const one = async (): Promise<void> => {
    for (let i = next++; i < list.length; i = next++) await deed(list[i]!);
  };
  await Promise.all(Array.from({ length: Math.min(AT_ONCE, list.length) }, one));
}

/** Whether nothing is seen in a picture, by one pixel in sixteen. */
function isBlank(rgba: Uint8ClampedArray): boolean {
  for (let i = 3; i < rgba.length; i += 64) if (rgba[i] !== 0) return false;
  return true;
}

/** Small pictures that are kept, bytes: some thousands. */
const MOST_SMALL = 20_000_000;
const SMALL_KEPT_IN = "zenithar-small";
let small: Promise<KeptFiles | null> | null = null;
const smallKept = (): Promise<KeptFiles | null> => (small ??= KeptFiles.open(SMALL_KEPT_IN, MOST_SMALL));
const smallAddress = (name: string): string => `${self.location.origin}/small/${encodeURIComponent(name)}`;

let stars: Promise<StarZones> | null = null;
/** The stars of charts, fetched once; a fetch that failed is tried again. */
function chartStars(): Promise<StarZones> {
  stars ??= fetch(starsUrl)
    .then((r) => r.arrayBuffer())
    .then((bytes) => {
      const table = unpackStars(new Uint8Array(bytes));
      if (!table.ok) throw new Error(`star file: ${table.error.reason}`);
      return starZones(table.value);
    });
  stars.catch(() => (stars = null));
  return stars;
}

/** All of a survey that a chart shows, fetched where it is not at hand. */
async function wholePicture({ id, survey, chart, look }: PictureAsked): Promise<Backdrop> {
  const tiles = tilesOf(id, survey);
  const view = chartView(chart);
  const order = orderFor(view, survey);
  const pixels = new ImageData(view.widthPx, view.heightPx);
  const missing = drawSurvey(view, survey, order, tiles.ofOrSmall, look, pixels.data);
  if (missing.length > 0) {
    await forEach(missing, (tile) => tiles.fetch(order, tile, AbortSignal.timeout(SMALL_WITHIN_MS)));
    drawSurvey(view, survey, order, tiles.ofOrSmall, look, pixels.data);
  }
  const image = new OffscreenCanvas(view.widthPx, view.heightPx);
  image.getContext("2d")?.putImageData(pixels, 0, 0);
  return { image, chart };
}

/** One place per use: a new question there ends the last one. */
const turns = new Map<string, AbortController>();

const api = {
  /** What a survey says of itself. */
  async facts(id: string): Promise<Result<Survey, SurveyRefusal>> {
    try {
      const file = await surveyFileOf(id, "properties", AbortSignal.timeout(15_000));
      return file ? readSurvey(await file.text()) : err({ code: "silent" });
    } catch {
      return err({ code: "silent" });
    }
  },

  /** Draws a chart's picture, coarse first, and finer as tiles come. False = a newer question took its turn, or the survey cannot be asked. */
  async picture(
    turn: string,
    asked: PictureAsked,
    hear: (picture: SurveyPicture) => void | Promise<void>,
  ): Promise<Result<boolean, { code: "silent" }>> {
    turns.get(turn)?.abort();
    const mine = new AbortController();
    turns.set(turn, mine);
    const tiles = tilesOf(asked.id, asked.survey);
    const view = chartView(asked.chart);
    const order = orderFor(view, asked.survey);
    const draw = async (at: number, isLast: boolean): Promise<readonly number[]> => {
      const { widthPx, heightPx } = view;
      const pixels = new ImageData(widthPx, heightPx);
      const missing = drawSurvey(view, asked.survey, at, tiles.ofOrSmall, asked.look, pixels.data);
      const unknown = missing.filter((tile) => !tiles.isKnown(at, tile));
      // What shows nothing yet takes the place of nothing: till then the chart stays as it was.
      if (!isLast && isBlank(pixels.data)) return unknown;
      const canvas = new OffscreenCanvas(widthPx, heightPx);
      canvas.getContext("2d")?.putImageData(pixels, 0, 0);
      const image = canvas.transferToImageBitmap();
      // Heard before it is answered that all is there.
      await hear(transfer({ image, isWhole: isLast || (at === order && unknown.length === 0) }, [image]));
      return unknown;
    };
    try {
      const missing = await draw(order, false);
      if (missing.length === 0) return ok(true);
      await tiles.fetchAllSky();
      mine.signal.throwIfAborted();
      const coarse = Math.max(asked.survey.orderMin, order - FIRST_COARSER);
      const first = [...new Set(missing.map((tile) => Math.floor(tile / 4 ** (order - coarse))))];
      if (coarse < order) await forEach(first, (tile) => tiles.fetch(coarse, tile, mine.signal));
      mine.signal.throwIfAborted();
      await draw(order, false);
      await forEach(missing, (tile) => tiles.fetch(order, tile, mine.signal));
      mine.signal.throwIfAborted();
      await draw(order, true);
      return ok(true);
    } catch (error) {
      if (mine.signal.aborted) return ok(false);
      if (error instanceof SurveyTrouble) return err({ code: "silent" });
      throw error;
    } finally {
      if (turns.get(turn) === mine) turns.delete(turn);
    }
  },

  /** A small picture that is kept under a name; null = it has to be made. */
  async smallKept(name: string): Promise<Blob | null> {
    return (await (await smallKept())?.find(smallAddress(name))) ?? null;
  },

  /** Makes a small picture and keeps it; null = the survey cannot be asked. Where the stars do not come it is made without, and not kept. */
  async small({ name, chart, ink, objects, frame, survey }: SmallPictureAsked): Promise<Blob | null> {
    const view = chartView(chart);
    const canvas = new OffscreenCanvas(view.widthPx, view.heightPx);
    const ctx = canvas.getContext("2d");
    if (!ctx) throw new Error("this browser draws nothing in a worker");
    const backdrop = survey ? await wholePicture({ ...survey, chart }).catch(() => null) : null;
    if (survey && !backdrop) return null;
    const dots = backdrop ? null : await chartStars().catch(() => null);
    drawSmallPicture(ctx, view, { backdrop, objects, stars: dots, frame }, ink);
    const file = await canvas.convertToBlob({ type: "image/png" });
    if (backdrop ?? dots) await (await smallKept())?.keep(smallAddress(name), file);
    return file;
  },

  /** Ends what was asked for a use. */
  stop(turn: string): void {
    turns.get(turn)?.abort();
  },

  /** Fetches all tiles of a disc on the sky, from the coarsest order to the one that is wanted, to be kept in the browser. How many there are. */
  async keep(
    { id, survey, centre, radiusDeg }: FieldToKeep,
    onProgress: (share: number) => void,
  ): Promise<Result<number, { code: "silent" }>> {
    turns.get("keep")?.abort();
    const mine = new AbortController();
    turns.set("keep", mine);
    // As deep as a chart of the field alone asks for, on a large window.
    const order = orderFor(chartView({ centre, heightDeg: 2 * radiusDeg, widthPx: 1400, heightPx: 900 }), survey);
    const orders = Array.from({ length: Math.max(0, order - survey.orderMin) + 1 }, (_, i) => survey.orderMin + i);
    const wanted = orders.flatMap((k) => tilesAround(survey.frame, k, centre, radiusDeg).map((tile) => tilePath(k, tile, survey.format))); // prettier-ignore
    let done = 0;
    try {
      await surveyFileOf(id, "properties", mine.signal);
      await forEach(wanted, async (path) => {
        mine.signal.throwIfAborted();
        await surveyFileOf(id, path, mine.signal);
        onProgress(++done / wanted.length);
      });
      return ok(wanted.length);
    } catch (error) {
      if (error instanceof SurveyTrouble) return err({ code: "silent" });
      throw error;
    }
  },

  kept: keptTiles,
  async forget(): Promise<void> {
    surveys.clear();
    small = null;
    if (typeof caches !== "undefined") await caches.delete(SMALL_KEPT_IN);
    await forgetTiles();
  },
};

export type SurveyApi = typeof api;
expose(api);
