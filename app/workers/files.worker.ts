import { expose, transfer } from "comlink";
import {
  decodeBundle,
  isExifName,
  samplePlan,
  decodeRow,
  openPanelList,
  readForecast,
  type Bundle,
  type BundleFault,
  type ForecastFault,
  type OpenedPanelList,
  type ReadForecast,
  pixelPlan,
  pixelToSky,
  readHeaderText,
  readWcs,
  stretchPixels,
  type FitsHeader,
  type WcsFault,
} from "~/core/formats";
import { meshCells, meshOf, type SkyMesh } from "~/core/framing";
import { fileIdentity, measureStars, subMeasureOf, type FileIdentity, type SubMeasure } from "~/core/ledger";
import { err, ok, type Result } from "~/core/result";
import { isCardsAsText, opened } from "./packed";
import { readSample } from "./sample";
import type { UtcMs } from "~/core/time";
import {
  factsOf,
  headerOf,
  MOST_BYTES,
  MOST_TABLE,
  openHeader,
  readOne,
  readTable,
  type HeaderFault,
  type ReadFile,
} from "./read-file";

/** Why a picture gives no underlay. */
export type PictureFault = WcsFault | { readonly code: "framePacked"; readonly found: string };

/** A FITS image made small and stretched, and where it lies. */
export interface StretchedImage {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue, opacity, from the top left. */
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
  readonly mesh: SkyMesh;
  /** Rows and pixels of the file over those shown. */
  readonly bin: number;
}

const MOST_PX = 1400; // a side: more than a chart shows, and quick to draw

const ABREAST = 6; // reading waits for the disk: so many at a time, in order

/** Works on files some at a time; what comes of them is in their order. */
async function abreast<T>(
  files: readonly File[],
  work: (file: File, i: number) => Promise<T>,
  onProgress: (done: number) => void,
): Promise<T[]> {
  const results = new Array<T>(files.length);
  let [next, done, told] = [0, 0, 0];
  const lane = async () => {
    while (next < files.length) {
      const i = next++;
      results[i] = await work(files[i]!, i);
      done++;
      if (performance.now() - told > 100) {
        told = performance.now();
        onProgress(done);
      }
    }
  };
  await Promise.all(Array.from({ length: ABREAST }, lane));
  return results;
}

/** What came of measuring one file. */
export interface MeasuredFile {
  readonly name: string;
  /** By what it is known again: which sub of the log it is. */
  readonly identity: FileIdentity | null;
  readonly result: Result<SubMeasure, HeaderFault | { readonly code: "framePacked" | "frameNoImage" | "fewStars" }>;
}

/** The highest value that a file can hold: what it says itself, else what its bits hold. Infinity = nobody knows. */
function mostOf({ values }: FitsHeader): number {
  const said = values.get("SATURATE");
  if (typeof said === "number" && said > 0) return said;
  return values.get("BITPIX") === 16 ? 65_535 : Infinity;
}

/** Stars and sky of one file, by a sample of its pixels. */
async function measureOne(file: File): Promise<MeasuredFile> {
  const { name } = file;
  const read = await openHeader(file);
  if (!read.ok) return { name, identity: null, result: read };
  const { header, isPacked } = read.value;
  const facts = await factsOf(file, read.value).catch(() => null);
  if (!facts) return { name, identity: null, result: err({ code: "unreadable" }) };
  const identity = fileIdentity(facts);
  if (isPacked || header.values.get("ZIMAGE") === true) return { name, identity, result: err({ code: "framePacked" }) };
  const plan = samplePlan(header);
  if (!plan) return { name, identity, result: err({ code: "frameNoImage" }) };
  try {
    const tiles = await readSample(file, header, plan);
    if (!tiles) return { name, identity, result: err({ code: "truncatedData" }) };
    const sample = measureStars(tiles, mostOf(header));
    const measure =
      sample && subMeasureOf({ ...sample, fwhmPx: sample.fwhmPx === null ? null : sample.fwhmPx * plan.bin });
    return { name, identity, result: measure ? ok(measure) : err({ code: "fewStars" }) };
  } catch {
    return { name, identity, result: err({ code: "unreadable" }) };
  }
}

/** What a landed file says, a light with its stars and sky measured; its header's own word counts where nothing can be. */
async function readLanded(file: File, path: string): Promise<ReadFile> {
  const { name } = file;
  const facts = await readOne(file, path);
  if (!facts.ok || facts.value.frameType !== "light" || isExifName(name)) return { name, facts };
  const { result } = await measureOne(file);
  return { name, facts: result.ok ? ok({ ...facts.value, measure: result.value }) : facts };
}

const api = {
  /** Reads what landed in a watched folder, lights with their stars and sky; `paths` are theirs, folders included. */
  async land(files: readonly File[], paths: readonly string[]): Promise<ReadFile[]> {
    return abreast(
      files,
      (file, i) => readLanded(file, paths[i] ?? file.name),
      () => undefined,
    );
  },
  /** Measures stars and sky of FITS files by samples of their pixels. */
  async measure(files: readonly File[], onProgress: (done: number) => void): Promise<MeasuredFile[]> {
    return abreast(files, measureOne, onProgress);
  },
  /** Reads a solved FITS image smaller: only the rows that are shown are read, whatever the size of the file. */
  async image(
    file: File,
    onProgress: (share: number) => void,
  ): Promise<Result<StretchedImage, HeaderFault | PictureFault>> {
    const header = await headerOf(file);
    if (!header.ok) return header;
    const wcs = readWcs(header.value);
    if (!wcs.ok) return wcs;
    if ((await opened(file)).isPacked || header.value.values.get("ZIMAGE") === true)
      return err({ code: "framePacked", found: "" });
    const [plan, at] = [pixelPlan(header.value, MOST_PX), pixelToSky(header.value)];
    if (!plan || !at) return err({ code: "frameNoImage", found: "" });
    const values = new Float32Array(plan.width * plan.height);
    for (let line = 0; line < plan.height; line++) {
      const from = plan.offsetOf(line);
      const bytes = await file.slice(from, from + plan.bytesPerRow).arrayBuffer();
      values.set(decodeRow(bytes, header.value, plan), line * plan.width);
      if (line % 100 === 0) onProgress(line / plan.height);
    }
    const [nx, ny] = [plan.width * plan.bin, plan.height * plan.bin];
    const side = (Math.max(nx, ny) * wcs.value.scaleYArcsec) / 3600;
    const mesh = meshOf((u, v) => at(0.5 + u * nx, 0.5 + (1 - v) * ny), meshCells(side));
    const rgba = new Uint8ClampedArray(4 * values.length);
    stretchPixels(values).forEach((grey, i) => {
      rgba[4 * i] = rgba[4 * i + 1] = rgba[4 * i + 2] = grey;
      rgba[4 * i + 3] = 255;
    });
    return transfer(ok({ width: plan.width, height: plan.height, rgba, mesh, bin: plan.bin }), [rgba.buffer]);
  },
  /** The header of a FITS file, or of a text with header cards; pixels are not read, nor required to be there for a text. */
  async header(file: File): Promise<Result<FitsHeader, HeaderFault>> {
    if (file.size <= MOST_BYTES && (await isCardsAsText(file))) return readHeaderText(await file.text());
    const header = await headerOf(file);
    if (header.ok || header.error.code !== "notFits" || file.size > MOST_BYTES) return header;
    return readHeaderText(await file.text());
  },
  /** A list of panels, CSV or VOTable. */
  async panels(file: File): Promise<OpenedPanelList> {
    return openPanelList(await file.slice(0, MOST_TABLE).text());
  },
  /** A file of records. */
  async bundle(file: Blob): Promise<Result<Bundle, BundleFault>> {
    return decodeBundle(await file.text());
  },
  /** A forecast file. */
  async forecast(
    file: File,
    at: { readonly nowMs: UtcMs; readonly latitudeDeg: number; readonly longitudeDeg: number },
  ): Promise<Result<ReadForecast, ForecastFault>> {
    return readForecast(await file.slice(0, MOST_TABLE).text(), at);
  },
  /** Reads what files say of their exposures; `paths` are theirs, folders included. */
  async read(
    files: readonly File[],
    paths: readonly string[],
    onProgress: (done: number) => void,
  ): Promise<ReadFile[]> {
    const read = async (file: File, i: number): Promise<ReadFile[]> =>
      (await readTable(file)) ?? [{ name: file.name, facts: await readOne(file, paths[i] ?? file.name) }];
    return (await abreast(files, read, onProgress)).flat();
  },
};

export type FilesApi = typeof api;
expose(api);
