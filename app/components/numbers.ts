/**
 * How numbers are written everywhere: by the browser's own formatter, with a real minus sign, no grouping below ten thousand,
 * and a fixed count of digits after the point, so that columns stand.
 */
const formatters = new Map<string, Intl.NumberFormat>();

function formatter(digits: number, options: Intl.NumberFormatOptions = {}): Intl.NumberFormat {
  const key = `${digits} ${options.signDisplay ?? ""} ${options.style ?? ""}`;
  const known = formatters.get(key);
  if (known) return known;
  const made = new Intl.NumberFormat("en", {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
    useGrouping: "min2",
    signDisplay: "negative", // no "-0"
    ...options,
  });
  formatters.set(key, made);
  return made;
}

const withMinus = (text: string): string => text.replace("-", "−");

/** "−12.3": a number with `digits` after the point. */
export const fixed = (value: number, digits = 0): string => withMinus(formatter(digits).format(value));

/** "43.62", "5": with as many digits after the point as it has, four at most. */
export function trimmed(value: number): string {
  const digits = [0, 1, 2, 3].find((d) => Number(value.toFixed(d)) === Number(value.toFixed(4)));
  return fixed(value, digits ?? 4);
}

/** "+12.3", "−0.4": with its sign always. */
export const signed = (value: number, digits = 0): string =>
  withMinus(formatter(digits, { signDisplay: "exceptZero" }).format(value));

/** "35 %" of a share in [0, 1]. */
export const percent = (share: number, digits = 0): string => `${fixed(100 * share, digits)} %`;

/** "1.6 MB" of bytes. */
export const megabytes = (bytes: number): string => `${fixed(bytes / 1e6, 1)} MB`;

const plurals = new Intl.PluralRules("en");

/** "place" of one, "places" of any other count. */
export const wordFor = (count: number, one: string, many = `${one}s`): string =>
  plurals.select(count) === "one" ? one : many;

/** "1 place", "3 places". */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${fixed(count)} ${wordFor(count, one, many)}`;

const MOST_TIMES = 10; // beyond, the figure says nothing more

/** "1.3 times", "over 10 times": how many times one thing is another. */
export const times = (ratio: number, digits = 1): string =>
  ratio > MOST_TIMES ? `over ${MOST_TIMES} times` : `${fixed(ratio, digits)} times`;

/** "640 MB", "4.2 GB", "38 GB": how much room files take; never less than a megabyte. */
export function roomWords(bytes: number): string {
  const [mb, gb] = [bytes / 1e6, bytes / 1e9];
  if (gb < 1) return `${fixed(Math.max(1, mb))} MB`;
  return `${fixed(gb, gb < 10 ? 1 : 0)} GB`;
}

/** A number for machines and boxes, not for readers: path data, keys, what a box starts from. ASCII, no grouping. */
export const plain = (value: number, digits: number): string => value.toFixed(digits);
