import { FITS_BLOCK, fitsHead, type FitsCard } from "./fits-card";

const ZERO = 32_768; // unsigned 16 bit as the standard has it: signed, with BZERO (FITS Standard 4.0, § 4.4.2.5)

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
  const head = fitsHead([...standard, ...cards]);
  const bytes = new Uint8Array(head.length + Math.ceil((2 * pixels.length) / FITS_BLOCK) * FITS_BLOCK);
  bytes.set(head);
  for (let i = 0, at = head.length; i < pixels.length; i++, at += 2) {
    const signed = pixels[i]! ^ ZERO; // minus 32,768 in two's complement
    bytes[at] = signed >> 8;
    bytes[at + 1] = signed & 255;
  }
  return bytes;
}
