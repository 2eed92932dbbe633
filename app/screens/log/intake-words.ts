import { bookingFaultWords, fileFaultWords } from "~/components/words/fault-words";
import { impossibleWords, mismatchWords } from "~/components/words/log-words";
import { clockTime, shortNight } from "~/components/clock";
import { counted, fixed } from "~/components/numbers";
import type { IntakeData } from "~/core/ledger";
import { addMs, HOUR_MS, MINUTE_MS, utcOffsetMinutes, type UtcMs } from "~/core/time";
import type { BookedGroup, IntakeReport, LeftOut } from "~/desk/log/intake";
import type { WrongClock } from "~/desk/log/wrong-clocks";

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

const dayAt = (ms: UtcMs, zone: string): string =>
  shortNight(new Date(ms + utcOffsetMinutes(zone, ms) * MINUTE_MS).toISOString().slice(0, 10));

/** "Fri 4 Dec 15:10 to 18:40"; the day once where it is the same. */
const spanWords = (firstMs: UtcMs, lastMs: UtcMs, zone: string): string => {
  const [from, to] = [dayAt(firstMs, zone), dayAt(lastMs, zone)];
  return `${from} ${clockTime(firstMs, zone)} to ${to === from ? "" : `${to} `}${clockTime(lastMs, zone)}`;
};

const cameraWords = ({ camera }: WrongClock): string => camera ?? "the camera without a name";

/** Which files a clock concerns: "Mono-26, 74 files, lights from Thu 3 Dec 17:05 to 23:40 by its clock". */
const sessionWords = (c: WrongClock): string =>
  `${cameraWords(c)}, ${counted(c.files, "file")}, lights from ${spanWords(c.firstMs, c.lastMs, c.zone)} by its clock`;

/** Why a clock is doubted, and what putting it right would make of its files. */
export function doubtWords(c: WrongClock): string {
  const right = spanWords(addMs(c.firstMs, -c.hours * HOUR_MS), addMs(c.lastMs, -c.hours * HOUR_MS), c.zone);
  return (
    `${sessionWords(c)}: ${c.lit} of ${counted(c.lights, "light")} would have been taken under the Sun, which stood at up to ${fixed(c.sunDeg, 0)}°. ` +
    `The clock seems to have been ${clockWords(c.hours)}: put right, they run from ${right}, and every light lies in the dark.`
  );
}

/** That it was put right. */
export const putRightWords = (c: WrongClock): string =>
  `${sessionWords(c)}: the clock, ${clockWords(c.hours)}, is put right.`;

const MOST_LINES = 1000;
const short = (text: string) => text.slice(0, 1000);

/** A report as it is kept. */
export const intakeText = (report: IntakeReport): Omit<IntakeData, "memberId" | "atMs"> => ({
  total: report.total,
  added: report.booked.reduce((sum, b) => sum + b.count, 0),
  known: report.known,
  lines: [
    ...report.booked.map((b) => ({
      count: b.count,
      words: groupWords(b),
      notes: noteWords(b).slice(0, 100).map(short),
    })),
    ...report.clocks.flatMap((c) => (c.isPutRight ? { count: c.files, words: putRightWords(c), notes: [] } : [])),
  ]
    .slice(0, MOST_LINES)
    .map((line) => ({ ...line, words: short(line.words) })),
  left: [
    ...report.doubts.flatMap((d) =>
      d.isSure
        ? []
        : { name: `${counted(d.count, "exposure")} of ${d.projectName}, ${d.night}`, why: impossibleWords(d.why) },
    ),
    ...report.refused.map((r) => ({ name: r.name, why: leftOutWords(r.why) })),
  ]
    .slice(0, MOST_LINES)
    .map(({ name, why }) => ({ name: short(name), why: short(why) })),
});
