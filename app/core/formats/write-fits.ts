import { fitsCard } from "./fits-card";

const BLOCK = 2880;
const ZERO = 32_768; // unsigned 16 bit as the standard has it: signed, with BZERO (FITS Standard 4.0, § 4.4.2.5)

/** A keyword of a header with its value and what it is. */
export type FitsCard = readonly [keyword: string, value: string | number | boolean, comment: string];

/**
 * A FITS file of one image of unsigned 16-bit pixels, first row first, with these cards after those the standard asks for. Text outside
 * ASCII becomes "?".
 */
export function writeFits(pixels: Uint16Array, widthPx: number, cards: readonly FitsCard[]): Uint8Array<ArrayBuffer> {
  const standard: readonly FitsCard[] = [
    ["SIMPLE", true, "FITS Standard 4.0"],
    ["BITPIX", 16, "bits of a pixel"],
    ["NAXIS", 2, "an image"],
    ["NAXIS1", widthPx, "columns"],
    ["NAXIS2", pixels.length / widthPx, "rows"],
    ["BZERO", ZERO, "pixels are unsigned"],
    ["BSCALE", 1, "counts"],
  ];
  const text = [...standard, ...cards].map((c) => fitsCard(...c)).join("") + "END";
  const headBytes = Math.ceil(text.length / BLOCK) * BLOCK;
  const bytes = new Uint8Array(headBytes + Math.ceil((2 * pixels.length) / BLOCK) * BLOCK);
  bytes.fill(0x20, 0, headBytes);
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    bytes[i] = code >= 0x20 && code < 0x7f ? code : 0x3f;
  }
  for (let i = 0, at = headBytes; i < pixels.length; i++, at += 2) {
    const signed = pixels[i]! ^ ZERO; // minus 32,768 in two's complement
    bytes[at] = signed >> 8;
    bytes[at + 1] = signed & 255;
  }
  return bytes;
}
