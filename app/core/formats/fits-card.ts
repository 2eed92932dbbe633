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
