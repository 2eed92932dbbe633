import { createEvents, type DateTime } from "ics";
import type { RunSheet } from "~/core/night";
import { printable } from "./printable";

const LONGEST_OCTETS = 75;
const octets = new TextEncoder();

/** Lines folded anew at 75 octets, never within a letter (RFC 5545, § 3.1): the library counts letters. */
function folded(text: string): string {
  const lines = text.replaceAll(/\r\n[ \t]/g, "").split("\r\n");
  return lines
    .map((line) => {
      let [out, length] = ["", 0];
      for (const letter of line) {
        const size = octets.encode(letter).length;
        if (length + size > LONGEST_OCTETS) {
          out += "\r\n ";
          length = 1;
        }
        out += letter;
        length += size;
      }
      return out;
    })
    .join("\r\n");
}

/** A text of one line, without what a calendar cannot hold. */
const line = (text: string): string => printable(text).replaceAll(/\s+/g, " ");

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
      title: line(`${about.title}: ${b.panel} ${b.channel}, ${b.subs} × ${b.subSec} s`),
      description: line(`${b.subs} subs of ${b.subSec} s through ${b.filterName}, panel ${b.panel}`),
      location: line(about.place),
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
  return folded(value);
}
