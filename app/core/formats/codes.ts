import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { deflateSync, Inflate } from "fflate";
import { err, ok, type Result } from "~/core/result";

/** Letters of a text that one code carries: a phone reads it from another one's screen at arm's length (version 17 of ISO/IEC 18004 at level L, 85 modules). */
const CODE_LETTERS = 560;
const MOST_CODES = 200; // shown at three a second that is a minute: more goes by file
const MOST_BYTES = 4_000_000; // of the text: what unpacks to more is none of ours

const LEAD = "ZN1";
const SUM_LETTERS = 12;
const CODE = /^ZN1\.([0-9a-f]{12})\.(\d{1,3})\.(\d{1,3})\.([A-Za-z0-9_-]{1,2000})$/;

/** A text as codes that are shown one after the other; null = it is too long for that. Packed by deflate (RFC 1951), in base64url (RFC 4648). */
export function textToCodes(text: string): readonly string[] | null {
  const packed = deflateSync(new TextEncoder().encode(text), { level: 9 });
  const letters = toBase64Url(packed);
  const count = Math.ceil(letters.length / CODE_LETTERS);
  if (count > MOST_CODES || text.length > MOST_BYTES) return null;
  const sum = sumOf(letters);
  return Array.from({ length: count }, (_, i) =>
    [LEAD, sum, i + 1, count, letters.slice(i * CODE_LETTERS, (i + 1) * CODE_LETTERS)].join("."),
  );
}

/** Codes read so far of one text. */
export interface CodesRead {
  /** What its letters must add up to. */
  readonly sum: string;
  readonly count: number;
  /** By their number from 1. */
  readonly parts: ReadonlyMap<number, string>;
}

/** With one more code, in whatever order they come; one of another text begins anew, and what is none of these codes changes nothing. */
export function withCode(read: CodesRead | null, code: string): CodesRead | null {
  const [, sum, number, count, letters] = CODE.exec(code) ?? [];
  if (sum === undefined || letters === undefined) return read;
  const [n, all] = [Number(number), Number(count)];
  if (n < 1 || n > all || all > MOST_CODES) return read;
  if (read?.sum === sum && read.count === all)
    return read.parts.has(n) ? read : { ...read, parts: new Map([...read.parts, [n, letters]]) };
  return { sum, count: all, parts: new Map([[n, letters]]) };
}

/** The text of codes that were read; null while some are missing, refused where they do not add up. */
export function codesText(read: CodesRead): Result<string | null, { readonly code: "broken" }> {
  if (read.parts.size < read.count) return ok(null);
  const letters = Array.from({ length: read.count }, (_, i) => read.parts.get(i + 1) ?? "").join("");
  const packed = sumOf(letters) === read.sum ? fromBase64Url(letters) : null;
  const bytes = packed && inflated(packed);
  return bytes ? ok(new TextDecoder().decode(bytes)) : err({ code: "broken" });
}

const sumOf = (letters: string): string => bytesToHex(sha256(new TextEncoder().encode(letters))).slice(0, SUM_LETTERS);

/** Unpacked, or null where it is not packed so, or unpacks to more than any night has. */
function inflated(packed: Uint8Array): Uint8Array | null {
  const parts: Uint8Array[] = [];
  let [size, isWhole] = [0, false];
  try {
    const inflate = new Inflate((part, isLast) => {
      size += part.length;
      if (size > MOST_BYTES) throw new RangeError("too much");
      parts.push(part);
      isWhole = isLast;
    });
    inflate.push(packed, true);
  } catch {
    return null;
  }
  if (!isWhole) return null;
  const all = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}

const toBase64Url = (bytes: Uint8Array): string =>
  btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(""))
    .replaceAll("+", "-")
    .replaceAll("/", "_")
    .replace(/=+$/, "");

function fromBase64Url(letters: string): Uint8Array | null {
  try {
    const raw = atob(letters.replaceAll("-", "+").replaceAll("_", "/"));
    return Uint8Array.from(raw, (c) => c.charCodeAt(0));
  } catch {
    return null;
  }
}
