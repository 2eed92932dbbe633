import type { SkyCells } from "~/core/survey";
import { FITS_BLOCK, fitsHead } from "./fits-card";

const ROW_BYTES = 8;

/** Numbers of cells with their order in them, rising: 4 · 4^order + cell (MOC 2.0, section 4.3.1.1). */
const uniqueNumbers = ({ byOrder }: SkyCells): number[] =>
  [...byOrder].flatMap(([order, cells]) => cells.map((cell) => 4 ** (order + 1) + cell)).sort((a, b) => a - b);

/** Cells as a MOC in JSON: the numbers of each order, and the finest order even where it has none (MOC 2.0, section 4.3.3). */
export function mocToJson({ order, byOrder }: SkyCells): string {
  const orders = [...byOrder].map(([at, cells]) => [String(at), cells] as const);
  const all = byOrder.has(order) ? orders : [...orders, [String(order), []] as const];
  return `${JSON.stringify(Object.fromEntries(all))}\n`;
}

/** Cells as a MOC in FITS: a binary table of 64-bit numbers (MOC 2.0, section 4.3.1), in ICRS. */
export function mocToFits(cells: SkyCells): Uint8Array<ArrayBuffer> {
  const numbers = uniqueNumbers(cells);
  const heads = [
    fitsHead([
      ["SIMPLE", true, "FITS Standard 4.0"],
      ["BITPIX", 8, "no image here"],
      ["NAXIS", 0, "what there is follows as a table"],
      ["EXTEND", true, "one extension"],
    ]),
    fitsHead([
      ["XTENSION", "BINTABLE", "a table"],
      ["BITPIX", 8, "bytes"],
      ["NAXIS", 2, "rows and their bytes"],
      ["NAXIS1", ROW_BYTES, "bytes of a row"],
      ["NAXIS2", numbers.length, "cells"],
      ["PCOUNT", 0, "nothing beside the table"],
      ["GCOUNT", 1, "one table"],
      ["TFIELDS", 1, "one column"],
      ["TTYPE1", "UNIQ", "4 4^order + cell"],
      ["TFORM1", "1K", "64-bit integers"],
      ["MOCVERS", "2.0", "IVOA MOC"],
      ["MOCDIM", "SPACE", "an area of the sky"],
      ["ORDERING", "NUNIQ", "numbers that hold their order"],
      ["COORDSYS", "C", "ICRS"],
      ["MOCORD_S", cells.order, "finest order"],
      ["MOCORDER", cells.order, "the same for readers of MOC 1"],
      ["MOCTOOL", "Zenithar", "written by"],
    ]),
  ];
  const headBytes = heads.reduce((sum, h) => sum + h.length, 0);
  const bytes = new Uint8Array(headBytes + Math.ceil((numbers.length * ROW_BYTES) / FITS_BLOCK) * FITS_BLOCK);
  let at = 0;
  for (const head of heads) {
    bytes.set(head, at);
    at += head.length;
  }
  const table = new DataView(bytes.buffer, headBytes);
  numbers.forEach((number, i) => table.setBigInt64(i * ROW_BYTES, BigInt(number)));
  return bytes;
}
