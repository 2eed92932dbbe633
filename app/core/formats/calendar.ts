import { createEvents, type DateTime } from "ics";
import type { RunSheet } from "~/core/night";

/**
 * A night as iCalendar (RFC 5545): one event a block, in UTC. `uidBase` makes the identifiers, so that importing a later
 * version of the same night replaces the earlier one.
 */
export function runSheetToCalendar(
  sheet: RunSheet,
  about: { readonly title: string; readonly place: string; readonly uidBase: string; readonly stampMs: number },
): string {
  const utc = (ms: number): DateTime => {
    const d = new Date(ms);
    return [d.getUTCFullYear(), d.getUTCMonth() + 1, d.getUTCDate(), d.getUTCHours(), d.getUTCMinutes()];
  };
  const blocks = sheet.lines.filter((l) => l.kind === "block");
  const { error, value } = createEvents(
    blocks.map((b, i) => ({
      uid: `${about.uidBase}-${i + 1}@zenithar`,
      productId: "zenithar",
      title: `${about.title}: ${b.panel} ${b.channel}, ${b.subs} × ${b.subSec} s`,
      description: `${b.subs} subs of ${b.subSec} s through ${b.filterName}, panel ${b.panel}`,
      location: about.place,
      start: utc(b.startMs),
      startInputType: "utc" as const,
      startOutputType: "utc" as const,
      end: utc(b.endMs),
      endInputType: "utc" as const,
      endOutputType: "utc" as const,
      created: utc(about.stampMs),
      lastModified: utc(about.stampMs),
    })),
  );
  if (error || !value) throw new RangeError(`calendar refused: ${error?.message ?? "no value"}`);
  return value;
}
