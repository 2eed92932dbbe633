import { expect, it } from "vitest";
import type { SkyCells } from "~/core/survey";
import { mocToFits, mocToJson } from "./moc";

const cells: SkyCells = { order: 4, byOrder: new Map([[1, [1, 2]], [2, [12, 13, 14, 21]]]) }; // prettier-ignore

it("cells as JSON: numbers by order, the finest order said even where it has none", () => {
  expect(JSON.parse(mocToJson(cells))).toEqual({ "1": [1, 2], "2": [12, 13, 14, 21], "4": [] });
  expect(mocToJson({ order: 2, byOrder: cells.byOrder })).toBe('{"1":[1,2],"2":[12,13,14,21]}\n');
});

it("cells as FITS: a table of 64-bit numbers in blocks of 2,880 bytes, each 4 · 4^order + cell, rising", () => {
  const bytes = mocToFits(cells);
  expect(bytes.length).toBe(3 * 2880);
  const cards = new TextDecoder("ascii").decode(bytes.subarray(2880, 5760)).match(/.{80}/g)!;
  const value = (keyword: string) => cards.find((c) => c.startsWith(keyword.padEnd(8)))?.slice(10).split(" /")[0]!.trim(); // prettier-ignore
  expect(["XTENSION", "NAXIS1", "NAXIS2", "TFORM1", "ORDERING", "COORDSYS", "MOCVERS", "MOCORD_S"].map(value)).toEqual(["'BINTABLE'", "8", "6", "'1K      '", "'NUNIQ   '", "'C       '", "'2.0     '", "4"]); // prettier-ignore
  const table = new DataView(bytes.buffer, 5760);
  const numbers = Array.from({ length: 6 }, (_, i) => Number(table.getBigInt64(8 * i)));
  expect(numbers).toEqual([17, 18, 76, 77, 78, 85]); // 16 + 1, 16 + 2, 64 + 12 …
});
