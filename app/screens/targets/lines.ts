import type { CatalogEntry, Kind } from "~/core/catalog";
import { isNarrow } from "~/core/exposure";
import { CLOSING_WEEKS, seasonSuffices, type RankedTarget } from "~/core/night";

/** A line of the list: a target as judged for this night, place and rig. */
export type TargetLine = RankedTarget & { readonly entry: CatalogEntry };

/** What the list is narrowed to; the parts combine. */
export interface TargetFilter {
  readonly query: string;
  readonly kind: Kind | "";
  readonly size: "any" | "fits" | "mosaic" | "fair";
  readonly light: "any" | "lines" | "broad";
  readonly season: "any" | "closing" | "enough";
  readonly minHours: string;
}

export const NO_FILTER: TargetFilter = {
  query: "",
  kind: "",
  size: "any",
  light: "any",
  season: "any",
  minHours: "",
};

/** What the list can be ordered by, each with its most wanted end first. */
export const ORDERS = ["overall", "usable", "worth", "season", "nights", "fill", "brightness", "name"] as const;
export type Order = (typeof ORDERS)[number];

const TINY = 0.06; // of the short side: a few hundred pixels

const isClosing = ({ season: { left } }: TargetLine) => left.kind === "open" && left.weeksLeft <= CLOSING_WEEKS;

/** The lines that pass all parts of a filter but the name, which the catalogue answers. */
export function narrowed(lines: readonly TargetLine[], filter: TargetFilter): TargetLine[] {
  const minMin = 60 * (Number(filter.minHours.replace(",", ".")) || 0);
  // One line for one thing; whoever asks for a kind is shown all of that kind.
  const isOne = filter.kind === "" && filter.query.trim() === "";
  return lines.filter((t) => {
    if (isOne && t.within !== null) return false;
    const fill = t.fill ?? 0;
    const isSize =
      filter.size === "any" ||
      (filter.size === "fits" ? t.panels === 1 && fill >= TINY : filter.size === "mosaic" ? t.panels > 1 : fill >= 0.1);
    const isSeason = filter.season === "any" || (filter.season === "closing" ? isClosing(t) : seasonSuffices(t));
    const isLight = filter.light === "any" || isNarrow(t.channel) === (filter.light === "lines");
    return (
      isSize &&
      isSeason &&
      isLight &&
      (filter.kind === "" || t.entry.kind === filter.kind) &&
      (minMin === 0 || t.usableMin >= minMin)
    );
  });
}

/** Weeks until a season ends, for ordering: those that close first, then those open all year, then those to come. */
function weeksToClose({ season: { left } }: TargetLine): number {
  switch (left.kind) {
    case "open":
      return left.weeksLeft;
    case "allYear":
      return 60;
    case "opens":
      return 100 + left.inWeeks;
    case "short":
      return 200;
  }
}

const LAST = 1e9;
/** Less comes first. */
const KEYS: Readonly<Record<Exclude<Order, "overall" | "name">, (t: TargetLine) => number>> = {
  usable: (t) => -t.usableMin,
  worth: (t) => -t.worthMin,
  season: weeksToClose,
  nights: (t) => t.needNights ?? LAST,
  fill: (t) => -(t.fill ?? 0),
  brightness: (t) => t.belowSkyMag ?? LAST,
};

/** The lines in an order; equal ones stay as ranked overall. */
export function ordered(lines: readonly TargetLine[], order: Order): readonly TargetLine[] {
  if (order === "overall") return lines;
  if (order === "name") return [...lines].sort((a, b) => a.entry.id.localeCompare(b.entry.id, "en", { numeric: true }));
  const key = KEYS[order];
  return [...lines].sort((a, b) => key(a) - key(b));
}
