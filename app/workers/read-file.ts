import {
  exifFactsOf,
  exposureFactsOf,
  isExifName,
  isTableName,
  readExposureTable,
  type TableFault,
  type ExifFault,
  readFitsHeader,
  type ReadAt,
  type FitsFault,
  type FitsHeader,
} from "~/core/formats";
import { dataSumOf, type ExposureFacts } from "~/core/ledger";
import { err, ok, type Result } from "~/core/result";
import { opened } from "./packed";

/** What one dropped file turned out to be. */
export interface ReadFile {
  readonly name: string;
  readonly facts: Result<ExposureFacts, FactsFault>;
}

const FIRST_BYTES = 16 * 2880; // holds the header of nearly every exposure
export const MOST_BYTES = 4_000_000; // a longer header is a broken one

/** Why a file gives no header. */
export type HeaderFault = FitsFault | { readonly code: "unreadable" };

/** Why a file tells nothing about its exposure. */
export type FactsFault = HeaderFault | ExifFault | TableFault;

/** A header, and the file it is of. */
interface OpenedHeader {
  readonly header: FitsHeader;
  /** Of one packed by gzip, that of what is in it. */
  readonly sizeBytes: number;
  readonly isPacked: boolean;
}

/** Reads only as much of a file as its header needs. */
export async function openHeader(file: File): Promise<Result<OpenedHeader, HeaderFault>> {
  try {
    // One read settles nearly every file: not packed, and a header that fits.
    const start = new Uint8Array(await file.slice(0, FIRST_BYTES).arrayBuffer());
    const isPacked = start[0] === 0x1f && start[1] === 0x8b;
    if (!isPacked) {
      const header = readFitsHeader(start, file.size);
      if (header.ok) return ok({ header: header.value, sizeBytes: file.size, isPacked });
      if (header.error.code !== "needMore") return header;
    }
    for (let length = FIRST_BYTES; length <= MOST_BYTES; length *= 4) {
      const { first, sizeBytes } = await opened(file);
      const header = readFitsHeader(await first(length), sizeBytes);
      if (header.ok) return ok({ header: header.value, sizeBytes, isPacked });
      if (header.error.code !== "needMore") return header;
    }
  } catch {
    return err({ code: "unreadable" });
  }
  return err({ code: "truncatedHeader" });
}

export async function headerOf(file: File): Promise<Result<FitsHeader, HeaderFault>> {
  const read = await openHeader(file);
  return read.ok ? ok(read.value.header) : read;
}

/** So much of a file's pixels tells it from every other of its camera: noise is never the same twice. */
const SUM_BYTES = 131_072;

/** The sum of some bytes of a file, as a part of its facts; none where there are no bytes. */
const asSum = (bytes: Uint8Array): Pick<ExposureFacts, "dataSum"> =>
  bytes.length > 0 ? { dataSum: dataSumOf(bytes) } : {};

/** The sum of the first pixels of a FITS file; of one packed by gzip, of what is in it. */
async function sumOfPixels(file: File, { dataOffset }: FitsHeader) {
  const { first, isPacked } = await opened(file);
  if (isPacked) return asSum((await first(dataOffset + SUM_BYTES)).subarray(dataOffset));
  return asSum(new Uint8Array(await file.slice(dataOffset, dataOffset + SUM_BYTES).arrayBuffer()));
}

/** The sum of a picture whose pixels lie behind what is written about it. */
async function sumOfMiddle(file: File) {
  const from = Math.floor(file.size / 2);
  return asSum(new Uint8Array(await file.slice(from, from + SUM_BYTES).arrayBuffer()));
}

const BLOCK_BYTES = 65_536; // what cameras write about an exposure lies together, at the front as a rule

/** Reads pieces of a file, a block around each, so that many small ones near each other are one. */
function blocksOf(file: File): ReadAt {
  let known: { readonly from: number; readonly bytes: Uint8Array<ArrayBuffer> } | null = null;
  return async (offset, length) => {
    const isKnown = known && offset >= known.from && offset + length <= known.from + known.bytes.length;
    if (!isKnown) {
      const from = offset - (offset % BLOCK_BYTES);
      const end = Math.max(offset + length, from + BLOCK_BYTES);
      known = { from, bytes: new Uint8Array(await file.slice(from, end).arrayBuffer()) };
    }
    return known!.bytes.subarray(offset - known!.from, offset - known!.from + length);
  };
}

/** Facts from the EXIF of a picture. */
async function readExif(file: File, path: string): Promise<ReadFile["facts"]> {
  try {
    const facts = await exifFactsOf(blocksOf(file), { name: file.name, path, sizeBytes: file.size });
    return facts.ok ? ok({ ...facts.value, ...(await sumOfMiddle(file)) }) : facts;
  } catch {
    return err({ code: "unreadable" });
  }
}

export const MOST_TABLE = 20_000_000; // bytes

/** The exposures a table tells; null where the file is none. */
export async function readTable(file: File): Promise<ReadFile[] | null> {
  if (!isTableName(file.name)) return null;
  if (file.size > MOST_TABLE) return [{ name: file.name, facts: err({ code: "tableTooLong" }) }];
  const rows = readExposureTable(await file.text(), file.name);
  return rows.ok
    ? rows.value.map((facts) => ({ name: facts.fileName, facts: ok(facts) }))
    : [{ name: file.name, facts: rows }];
}

export async function readOne(file: File, path: string): Promise<ReadFile["facts"]> {
  if (isExifName(file.name)) return readExif(file, path);
  const read = await openHeader(file);
  if (!read.ok) return read;
  try {
    return ok(await factsOf(file, read.value));
  } catch {
    return err({ code: "unreadable" });
  }
}

/** What an opened FITS file says of its exposure. */
export async function factsOf(file: File, { header, sizeBytes }: OpenedHeader): Promise<ExposureFacts> {
  return { ...exposureFactsOf(header, { name: file.name, sizeBytes }), ...(await sumOfPixels(file, header)) };
}
