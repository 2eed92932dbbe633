import { createEvents } from "ics";
import { foldRounds, type RunSheet } from "~/core/night";
import { channelsText, type Evening } from "~/core/season";
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

const whole = (ms: number): number => Math.floor(ms / 1000) * 1000;

/** What of an event is the same in every file: instants in UTC, to the second, and when the file was made. */
const timesOf = (startMs: number, endMs: number, stampMs: number) => ({
  start: whole(startMs),
  startInputType: "utc" as const,
  startOutputType: "utc" as const,
  end: whole(endMs),
  endInputType: "utc" as const,
  endOutputType: "utc" as const,
  created: whole(stampMs),
  lastModified: whole(stampMs),
  timestamp: whole(stampMs),
});

/**
 * A night as iCalendar (RFC 5545): one event a block, in UTC. `uidBase` makes the identifiers, so that importing a later
 * version of the same night replaces the earlier one.
 */
export function runSheetToCalendar(
  sheet: RunSheet,
  about: {
    readonly titleOf: (projectId: string) => string;
    readonly place: string;
    readonly uidBase: string;
    readonly stampMs: number;
  },
): string {
  const blocks = foldRounds(sheet.lines).flatMap((l) => (l.kind === "block" || l.kind === "rounds" ? [l] : []));
  const work = (b: (typeof blocks)[number]): { readonly title: string; readonly words: string } => {
    if (b.kind === "block")
      return {
        title: `${b.panel} ${b.channel}, ${b.subs} × ${b.subSec} s`,
        words: `${b.subs} subs of ${b.subSec} s through ${b.filterName}, panel ${b.panel}`,
      };
    const parts = b.parts.map((p) => `${p.panel} ${p.channel}, ${p.subs} × ${p.subSec} s`);
    return { title: `${b.rounds} rounds of ${parts.length}`, words: `In turn: ${parts.join("; ")}` };
  };
  const { error, value } = createEvents(
    blocks.map((b, i) => ({
      uid: `${about.uidBase}-${i + 1}@zenithar`,
      productId: "zenithar",
      title: line(`${about.titleOf(b.projectId)}: ${work(b).title}`),
      description: line(work(b).words),
      location: line(about.place),
      ...timesOf(b.startMs, b.endMs, about.stampMs),
    })),
  );
  if (error || !value) throw new RangeError(`calendar refused: ${error?.message ?? "no value"}`);
  return folded(value);
}

/** Minutes since 2020: a number that only grows, for SEQUENCE. */
const revisionAt = (ms: number): number => Math.max(0, Math.floor((ms - Date.UTC(2020, 0, 1)) / 60_000));

/**
 * The planned nights of a season as iCalendar (RFC 5545): one event an evening and rig, in UTC, named after the night, so that a
 * later file updates it (SEQUENCE grows), with an alarm in time for the set-up.
 */
export function seasonToCalendar(
  evenings: readonly Evening[],
  about: {
    readonly nameOf: (projectId: string) => string;
    readonly placeOf: (placeId: string) => string;
    /** From the alarm to the beginning of an evening, minutes. */
    readonly alarmMin: (evening: Evening) => number;
    /** Whether an evening is only for what clouds leave undone. */
    readonly isReserve: (evening: Evening) => boolean;
    readonly uidBase: string;
    readonly stampMs: number;
  },
): string {
  const events = evenings.flatMap((e) => {
    const [first] = e.blocks;
    if (!first) return [];
    const endMs = Math.max(...e.blocks.map((b) => b.endMs));
    const names = [...new Set(e.blocks.map((b) => about.nameOf(b.projectId)))];
    const work = e.blocks.map((b) => `${about.nameOf(b.projectId)} ${channelsText(b)}`).join(", ");
    return [
      {
        uid: `${about.uidBase}-${e.night}-${e.rigIds.join("+")}@zenithar`,
        sequence: revisionAt(about.stampMs),
        productId: "zenithar",
        title: line(`${about.isReserve(e) ? "Reserve, if it is clear" : "If it is clear"}: ${names.join(", then ")}`),
        description: line(`${work}. Clear with ${Math.round(e.chance * 100)} % as of this file.`),
        location: line(about.placeOf(e.placeId)),
        ...timesOf(first.startMs, endMs, about.stampMs),
        alarms: [
          {
            action: "display" as const,
            description: "Set up",
            trigger: { minutes: Math.max(1, Math.round(about.alarmMin(e))), before: true },
          },
        ],
      },
    ];
  });
  const { error, value } = createEvents(events);
  if (error || !value) throw new RangeError(`calendar refused: ${error?.message ?? "no value"}`);
  return folded(value);
}
