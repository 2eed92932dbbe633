import { bookingFaultWords, fileFaultWords } from "~/components/words/fault-words";
import { mismatchWords } from "~/components/words/log-words";
import { counted } from "~/components/numbers";
import type { IntakeData } from "~/core/ledger";
import type { BookedGroup, IntakeReport, LeftOut } from "~/desk/log/intake";

/** Where a group of exposures belongs. */
export const groupWords = ({ booking: b }: BookedGroup): string =>
  b.kind === "light"
    ? `${b.projectName}: ${b.data.panel} ${b.data.channel}, night of ${b.data.night}, ${b.data.exposureSec} s`
    : `${b.data.type} frames of ${b.data.exposureSec} s`;

/** Why a file is left out. */
export const leftOutWords = (why: LeftOut): string =>
  why.kind === "unreadable"
    ? fileFaultWords(why.code)
    : why.kind === "unplaced"
      ? bookingFaultWords(why.fault)
      : `${why.message}: no log entry can have that`;

/** What of a group is off, and how many of its files that concerns. */
export const noteWords = (group: BookedGroup): string[] =>
  group.notes.map(
    ({ mismatch, count }) => `${mismatchWords(mismatch)}${count < group.count ? ` (${count} of ${group.count})` : ""}`,
  );

/** "the camera's clock was 2 hours ahead", or behind. */
export const clockWords = (hours: number): string =>
  `${counted(Math.abs(hours), "hour")} ${hours > 0 ? "ahead" : "behind"}`;

const MOST_LINES = 1000;
const short = (text: string) => text.slice(0, 1000);

/** A report as it is kept. */
export const intakeText = (report: IntakeReport): Omit<IntakeData, "memberId" | "atMs"> => ({
  total: report.total,
  added: report.booked.reduce((sum, b) => sum + b.count, 0),
  known: report.known,
  lines: report.booked
    .slice(0, MOST_LINES)
    .map((b) => ({ count: b.count, words: short(groupWords(b)), notes: noteWords(b).slice(0, 100).map(short) })),
  left: report.refused.slice(0, MOST_LINES).map((r) => ({ name: short(r.name), why: short(leftOutWords(r.why)) })),
});
