import { fixed, percent } from "~/components/numbers";
import type { CullHint, CullPrice } from "~/core/ledger";
import { formatHoursMinutes } from "~/core/notation";

const WHAT = {
  fwhmPx: "wide",
  eccentricity: "long",
  background: "bright sky",
  stars: "few stars",
  light: "faint stars",
} as const;

const inUnits = (what: CullHint["what"], value: number): string =>
  what === "fwhmPx" ? `${fixed(value, 1)} px` : fixed(value, what === "eccentricity" ? 2 : 0);

/** Why a sub stands out: "wide, 4.1 σ", "few stars, 54 % of the usual", "wide, 4.6 px: your limit is 4.2 px". */
export const hintWords = ({ what, value, against, by }: CullHint): string =>
  against.kind === "limit"
    ? `${WHAT[what]}, ${inUnits(what, value)}: your limit is ${inUnits(what, against.value)}`
    : what === "stars" || what === "light"
      ? `${WHAT[what]}, ${percent(by)} of the usual`
      : `${WHAT[what]}, ${fixed(by, 1)} σ`;

/** What dropping costs: "20 min, signal to noise × 0.93". */
export const priceWords = ({ hours, snr, snrOfStars }: CullPrice): string =>
  `${formatHoursMinutes(hours)}, signal to noise × ${fixed(snr, 3)}${snrOfStars === null ? "" : `; weighed by width and sky × ${fixed(snrOfStars, 3)} for stars`}`;

/** Why a file could not be measured. */
export function measureFaultWords(code: string): string {
  switch (code) {
    case "framePacked":
      return "packed: unpack it first, its pixels are not read here";
    case "frameNoImage":
      return "it has no picture";
    case "fewStars":
      return "too few stars to measure by";
    case "truncatedData":
    case "truncatedHeader":
      return "cut short";
    default:
      return "not a FITS file that reads";
  }
}
