/** Fixed columns 11–30: integers plain, others with 12 significant digits (FITS Standard 4.0, § 4.2). */
const fixed = (value: number): string =>
  Number.isInteger(value) ? String(value) : value.toPrecision(12).replace("e", "E");

/** One 80-character card of a FITS header: text in quotes, numbers and T or F to the right of column 30. */
export function fitsCard(keyword: string, value: string | number | boolean, comment: string): string {
  const text =
    typeof value === "string"
      ? `'${value.replaceAll("'", "''").padEnd(8)}'`
      : (typeof value === "number" ? fixed(value) : value ? "T" : "F").padStart(20);
  return `${keyword.padEnd(8)}= ${text} / ${comment}`.slice(0, 80).padEnd(80);
}

/** A keyword of a header with its value and what it is. */
export type FitsCard = readonly [keyword: string, value: string | number | boolean, comment: string];

/** Bytes that parts of a FITS file come in. */
export const FITS_BLOCK = 2880;

/** A whole header in whole blocks, END and blanks after its cards (FITS Standard 4.0, § 3.3.1). Text outside ASCII becomes "?". */
export function fitsHead(cards: readonly FitsCard[]): Uint8Array {
  const text = cards.map((c) => fitsCard(...c)).join("") + "END";
  const bytes = new Uint8Array(Math.ceil(text.length / FITS_BLOCK) * FITS_BLOCK).fill(0x20);
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    bytes[i] = code >= 0x20 && code < 0x7f ? code : 0x3f;
  }
  return bytes;
}
