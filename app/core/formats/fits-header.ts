import { err, ok, type Result } from "~/core/result";

/** Value of a header card. */
export type FitsValue = string | number | boolean;

/** Why a file is not a usable FITS file. "needMore" asks for a longer piece of the file; "brokenHeader" = sizes that cannot be. */
export interface FitsFault {
  readonly code: "notFits" | "truncatedHeader" | "truncatedData" | "needMore" | "brokenHeader";
}

/** Keywords of the image in a file: those of its own HDU over those of the primary. */
export interface FitsHeader {
  readonly hdu: number;
  readonly values: ReadonlyMap<string, FitsValue>;
  readonly axes: readonly number[];
  /** Byte at which the pixels begin; 0 for a header given as text, and where they are compressed. */
  readonly dataOffset: number;
}

/** Longest text that CONTINUE cards make, letters. */
const LONGEST_TEXT = 8000;
const BLOCK = 2880;
const CARD = 80;

/** Text of a quoted value and where it ends; quotes inside are doubled (FITS Standard 4.0, § 4.2.1). */
function quoted(text: string): { readonly value: string; readonly continues: boolean } | null {
  const match = /^\s*'((?:[^']|'')*)'/.exec(text);
  if (!match) return null;
  const value = match[1]!.replaceAll("''", "'").trimEnd();
  return { value, continues: value.endsWith("&") };
}

function parseValue(text: string): FitsValue | null {
  const string = quoted(text);
  if (string) return string.value;
  const plain = text.split("/")[0]!.trim();
  if (plain === "T") return true;
  if (plain === "F") return false;
  if (plain === "") return null;
  const number = Number(plain.replace(/[dD]/, "E"));
  return Number.isFinite(number) ? number : null;
}

/** One header from `offset`: its keywords and the byte after its last block. */
function readUnit(
  bytes: Uint8Array,
  offset: number,
  fileSize: number,
): Result<{ values: Map<string, FitsValue>; next: number }, FitsFault> {
  const values = new Map<string, FitsValue>();
  let continued: string | null = null;
  let parts: string[] = [];
  /** Puts a long text down in one piece: put together card by card it would be copied with each. */
  const finish = () => {
    if (continued !== null && parts.length > 0) values.set(continued, parts.join("").slice(0, LONGEST_TEXT));
    [continued, parts] = [null, []];
  };
  for (let at = offset; ; at += CARD) {
    if (at + CARD > fileSize) return err({ code: "truncatedHeader" });
    if (at + CARD > bytes.length) return err({ code: "needMore" });
    const card = String.fromCharCode(...bytes.subarray(at, at + CARD));
    const keyword = card.slice(0, 8).trimEnd();
    if (keyword === "END") finish();
    if (keyword === "END") return ok({ values, next: offset + Math.ceil((at + CARD - offset) / BLOCK) * BLOCK });
    if (keyword === "CONTINUE" && continued !== null) {
      const more = quoted(card.slice(8));
      if (more) parts.push(parts.pop()?.replace(/&$/, "") ?? "", more.value);
      if (!more?.continues) finish();
      continue;
    }
    finish();
    const hierarch = /^HIERARCH\s+([^=]+?)\s*=(.*)$/.exec(card);
    const [name, text] = hierarch
      ? [hierarch[1]!, hierarch[2]!]
      : card[8] === "="
        ? [keyword, card.slice(9)]
        : ["", ""];
    if (name === "") continue;
    const value = parseValue(text);
    if (value !== null) values.set(name, value);
    if (typeof value === "string" && quoted(text)?.continues) [continued, parts] = [name, [value]];
  }
}

const integer = (values: ReadonlyMap<string, FitsValue>, name: string): number => {
  const v = values.get(name);
  return typeof v === "number" ? v : 0;
};

function axesOf(values: ReadonlyMap<string, FitsValue>): number[] {
  return Array.from({ length: Math.min(9, Math.max(0, integer(values, "NAXIS"))) }, (_, i) =>
    integer(values, `NAXIS${i + 1}`),
  );
}

/** Bytes of a data unit without its padding (FITS Standard 4.0, § 4.4.1). */
function dataBytes(values: ReadonlyMap<string, FitsValue>, axes: readonly number[]): number {
  if (axes.length === 0) return 0;
  const groups = Math.max(1, integer(values, "GCOUNT") || 1);
  return (
    (Math.abs(integer(values, "BITPIX")) / 8) * groups * (integer(values, "PCOUNT") + axes.reduce((a, b) => a * b, 1))
  );
}

/** Keywords that tie pixels to the sky (Calabretta & Greisen 2002), distortion included. */
const OF_PIXELS =
  /^(?:C(?:TYPE|UNIT|RVAL|RPIX|DELT|ROTA)\d|CD\d_\d|PC\d_\d|PC\d{6}|PV\d_\d+|LONPOLE|LATPOLE|(?:A|B|AP|BP)_(?:ORDER|\d_\d)|ROWORDER)$/;

/**
 * What holds of an image in an extension: its own cards, and those of the primary header that say how it was taken. Where pixels lie on
 * the sky is each image's own, unless it says INHERIT (Standard 4.0, § 4.4.2.6).
 */
function withPrimary(primary: ReadonlyMap<string, FitsValue>, own: ReadonlyMap<string, FitsValue>) {
  const isHeir = own.get("INHERIT") === true;
  return new Map([...[...primary].filter(([name]) => isHeir || !OF_PIXELS.test(name)), ...own]);
}

/**
 * Reads the header of the first image in a FITS file (Standard 4.0: CONTINUE, HIERARCH, extensions) from its leading
 * bytes; pixels are not read. A data unit shorter than the header promises is "truncatedData".
 */
export function readFitsHeader(bytes: Uint8Array, fileSize: number): Result<FitsHeader, FitsFault> {
  const start = String.fromCharCode(...bytes.subarray(0, 30));
  if (!/^SIMPLE {2}= +T/.test(start)) return err({ code: "notFits" });
  const primary = new Map<string, FitsValue>();
  for (let hdu = 0, offset = 0; ; hdu++) {
    const unit = readUnit(bytes, offset, fileSize);
    if (!unit.ok) return unit;
    const { values, next } = unit.value;
    const axes = axesOf(values);
    if (hdu === 0) values.forEach((v, k) => primary.set(k, v));
    const size = dataBytes(values, axes);
    // Sizes below nothing would lead back to where one was.
    if (!(size >= 0) || axes.some((n) => n < 0 || !Number.isInteger(n))) return err({ code: "brokenHeader" });
    const isImage = axes.length >= 2 && (hdu === 0 || values.get("XTENSION") === "IMAGE");
    // A tile-compressed image lies in a table, its size and type under names of their own (Standard 4.0, § 10.1).
    if (hdu > 0 && values.get("ZIMAGE") === true) {
      if (fileSize < next + size) return err({ code: "truncatedData" });
      const count = Math.min(9, Math.max(0, integer(values, "ZNAXIS")));
      const sizes = Array.from({ length: count }, (_, i) => integer(values, `ZNAXIS${i + 1}`));
      if (sizes.some((n) => n < 0 || !Number.isInteger(n))) return err({ code: "brokenHeader" });
      return ok({ hdu, axes: sizes, values: withPrimary(primary, values), dataOffset: 0 });
    }
    if (isImage) {
      if (fileSize < next + size) return err({ code: "truncatedData" });
      return ok({ hdu, axes, values: hdu === 0 ? values : withPrimary(primary, values), dataOffset: next });
    }
    offset = next + Math.ceil(size / BLOCK) * BLOCK;
    if (offset >= fileSize) return ok({ hdu: 0, axes: axesOf(primary), values: primary, dataOffset: 0 });
  }
}

const MOST_LINES = 20_000;
const LONGEST_LINE = 400;

/**
 * Reads header cards given as text, a card a line (as solvers and viewers write them) or run together in 80 columns. Without
 * NAXIS1 and NAXIS2 the size is taken from IMAGEW and IMAGEH; an image without any has no axes. "notFits" when no card is found.
 */
export function readHeaderText(text: string): Result<FitsHeader, FitsFault> {
  const lines = text.includes("\n")
    ? text.split(/\r?\n/, MOST_LINES)
    : (text.slice(0, MOST_LINES * CARD).match(/.{1,80}/gs) ?? []);
  const values = new Map<string, FitsValue>();
  for (const line of lines) {
    const match = /^\s*([A-Z][A-Z0-9_-]{0,7})\s*=\s*(.*)$/.exec(line.slice(0, LONGEST_LINE));
    const value = match ? parseValue(match[2]!) : null;
    if (match && value !== null) values.set(match[1]!, value);
  }
  if (values.size === 0) return err({ code: "notFits" });
  const size = [
    integer(values, "NAXIS1") || integer(values, "IMAGEW"),
    integer(values, "NAXIS2") || integer(values, "IMAGEH"),
  ];
  return ok({ hdu: 0, values, axes: size.every((n) => n > 0) ? size : [], dataOffset: 0 });
}
