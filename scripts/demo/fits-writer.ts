/** A card of a FITS header: keyword, value, remark. Strings are quoted, numbers right-justified. */
export type Card = readonly [string, string | number | boolean];

const card = ([keyword, value]: Card): string => {
  const text =
    typeof value === "string"
      ? `'${value.replaceAll("'", "''").padEnd(8)}'`.padEnd(20)
      : (typeof value === "boolean" ? (value ? "T" : "F") : String(value)).padStart(20);
  return `${keyword.padEnd(8)}= ${text}`.padEnd(80);
};

/** A small 16-bit FITS file with the given cards: for the demo and the tests. */
export function writeFits(cards: readonly Card[], widthPx = 48, heightPx = 32): Uint8Array {
  const all: Card[] = [
    ["SIMPLE", true],
    ["BITPIX", 16],
    ["NAXIS", 2],
    ["NAXIS1", widthPx],
    ["NAXIS2", heightPx],
    ...cards,
  ];
  const header = all.map(card).join("") + "END".padEnd(80);
  const headerBytes = Math.ceil(header.length / 2880) * 2880;
  const dataBytes = Math.ceil((widthPx * heightPx * 2) / 2880) * 2880;
  const bytes = new Uint8Array(headerBytes + dataBytes);
  bytes.fill(32, 0, headerBytes);
  bytes.set(new TextEncoder().encode(header));
  return bytes;
}
