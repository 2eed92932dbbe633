import type { CatalogEntry } from "~/core/catalog";
import { firstDarkNight, isEverDark, placeNight, rankCatalog, USUAL_MOON, type Place } from "~/core/night";
import { nightDate } from "~/core/time";
import { RULES, type SweptList } from "./rules";
import type { SweptKit } from "./sites";

const ROWS = 10;

/** What a list came to: its rows, and the flags on them by rule. */
export interface Swept {
  readonly list: SweptList;
  readonly flags: readonly { readonly rule: string; readonly row: number }[];
  /** Nothing stands on it, though it gets dark. */
  readonly isEmpty: boolean;
}

/** The first ten of one list, on the first dark night there where that one is not, and the rules they break. */
export function sweepOne(entries: readonly CatalogEntry[], place: Place, kit: SweptKit, date: string): Swept {
  const asked = placeNight(place, nightDate(date), USUAL_MOON);
  const dark = isEverDark(asked) ? null : firstDarkNight(place, nightDate(date), USUAL_MOON);
  const night = dark === null ? asked : placeNight(place, dark, USUAL_MOON);
  const { ranked } = rankCatalog(entries, { night, rig: kit.rig, filters: kit.filters });
  const rows = ranked
    .filter((t) => t.within === null)
    .slice(0, ROWS)
    .map((line, i) => ({ line, entry: entries[line.row]!, place: i }));
  const list: SweptList = { rig: kit.rig, filters: kit.filters, skyMag: place.skyMagPerArcsec2, rows };
  const flags = rows.flatMap((row) => RULES.flatMap((r) => (r.breaks(row, list) ? [{ rule: r.name, row: row.place }] : []))); // prettier-ignore
  return { list, flags, isEmpty: rows.length === 0 };
}

/** Rows with at least one flag. */
export const flaggedRows = ({ flags }: Swept): number => new Set(flags.map((f) => f.row)).size;
