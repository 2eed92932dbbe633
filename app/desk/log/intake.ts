import { meOf } from "~/desk/records/parts";
import {
  exposureBooker,
  type Booking,
  type BookingAnswer,
  type BookingFault,
  type BookingQuestion,
  type ContributionData,
  type ExposureFacts,
  type IntakeData,
  type Mismatch,
} from "~/core/ledger";
import { decodeData, type EditOf } from "~/core/records";
import { HOUR_MS, utcMs } from "~/core/time";
import type { Library } from "~/desk/records/library";
import type { ReadFile } from "~/workers/files";
import { bookingContext, worthRates } from "./booking-context";
import { doubtsOf, type DoubtGroup, type PlacedLight } from "./doubts";
import { knownFiles, takenAt } from "./known-subs";
import { clocksOf, type WrongClock } from "./wrong-clocks";

/** Exposures of one kind that were booked together. */
export interface BookedGroup {
  readonly booking: Booking;
  readonly count: number;
  /** What does not agree, and how many of the files it concerns. */
  readonly notes: readonly { readonly mismatch: Mismatch; readonly count: number }[];
}

/** Why a file was left out: it does not read, or it cannot be placed. */
export type LeftOut =
  | { readonly kind: "unreadable"; readonly code: Extract<ReadFile["facts"], { readonly ok: false }>["error"]["code"] }
  | { readonly kind: "unplaced"; readonly fault: BookingFault }
  /** A value of its header that no log entry can have, such as an exposure of 0 s. */
  | { readonly kind: "outOfRange"; readonly message: string };

/** Files that leave several answers, to be asked about once. */
export interface OpenGroup {
  readonly question: BookingQuestion;
  readonly count: number;
}

/** Further ahead than any zone or hour set wrong: such a clock tells nothing. */
const CLOCKS_OFF_MS = 36 * HOUR_MS;

/** What came of dropped files. */
export interface IntakeReport {
  readonly open: readonly OpenGroup[];
  /** What cannot be as it stands: left out until somebody says that it is right. */
  readonly doubts: readonly DoubtGroup[];
  readonly booked: readonly BookedGroup[];
  readonly known: number;
  /** Of the known ones, those whose stars are told now. */
  readonly measured: number;
  readonly refused: readonly { readonly name: string; readonly why: LeftOut }[];
  readonly total: number;
  /** Sessions of cameras whose clock seems to be wrong, or was put right for this report. */
  readonly clocks: readonly WrongClock[];
}

/** What exposures have in common that are told of in one line. */
const groupKey = (b: Booking): string =>
  b.kind === "light"
    ? [b.data.projectId, b.data.panel, b.data.channel, b.data.night, b.data.exposureSec].join("|")
    : [b.data.type, b.data.exposureSec].join("|");

/** What notes have in common that are told of once: of offsets of the same direction the largest. */
const noteKey = ({ code, found, wanted }: Mismatch): string =>
  code === "pointing" ? `${code}|${Math.round(Number(wanted) / 45) % 8}` : JSON.stringify([code, found, wanted]);

/** The gain that a camera's lights have as a rule: of this drop, by count; null where it does not say. */
function gainsOf(files: readonly ReadFile[]): (facts: ExposureFacts) => number | null {
  const keyOf = (f: ExposureFacts) => `${f.camera ?? ""}|${f.filter ?? ""}`;
  const counts = new Map<string, Map<number, number>>();
  for (const { facts } of files) {
    if (!facts.ok || facts.value.frameType !== "light" || facts.value.gain === null) continue;
    const of = counts.get(keyOf(facts.value)) ?? new Map<number, number>();
    of.set(facts.value.gain, (of.get(facts.value.gain) ?? 0) + 1);
    counts.set(keyOf(facts.value), of);
  }
  return (facts) => {
    const of = [...(counts.get(keyOf(facts)) ?? [])].sort((a, b) => b[1] - a[1]);
    return of[0]?.[0] ?? null;
  };
}

/** What an intake came to, as a record; words come from whoever tells it. */
export const intakeEdit = (library: Library, data: Omit<IntakeData, "memberId" | "atMs">): EditOf => ({
  kind: "intake",
  id: library.desk.newId("intake"),
  data: { ...data, memberId: meOf(library) ?? "me", atMs: library.desk.now() },
  baseRev: null,
});

/** What a person said of dropped files. */
export interface Said {
  /** Where headers leave several answers. */
  readonly answers?: Readonly<Record<string, BookingAnswer>>;
  /** Hours that the clock of a session is put back, by session. */
  readonly putRight?: Readonly<Record<string, number>>;
  /** Groups of doubted entries that are right all the same. */
  readonly sure?: readonly string[];
}

/** A file that has its place in the log. */
type Placed = { readonly file: number; readonly booking: Booking; readonly edit: EditOf } & (
  (PlacedLight & { readonly kind: "light" }) | { readonly kind: "calibration" }
);

/** A header with its camera's clock put back by some hours. */
function putBack(facts: ExposureFacts, hours: number): ExposureFacts {
  const put = <T extends number>(ms: T | null): T | null => (ms === null ? null : ((ms - hours * HOUR_MS) as T));
  return hours === 0 ? facts : { ...facts, startMs: put(facts.startMs), wallMs: put(facts.wallMs) };
}

/** Files in groups that are told of in one line, with what does not agree. */
function groupsOf(placed: readonly Placed[], usualGain: (facts: ExposureFacts) => number | null): BookedGroup[] {
  const groups = new Map<
    string,
    { booking: Booking; count: number; notes: Map<string, BookedGroup["notes"][number]> }
  >();
  for (const one of placed) {
    const key = groupKey(one.booking);
    const group = groups.get(key) ?? {
      booking: one.booking,
      count: 0,
      notes: new Map<string, BookedGroup["notes"][number]>(),
    };
    groups.set(key, group);
    group.count++;
    if (one.kind !== "light") continue;
    const [gain, usual] = [one.data.gain, usualGain(one.facts)];
    const isOdd = gain !== undefined && usual !== null && gain !== usual;
    for (const mismatch of [
      ...one.mismatches,
      ...(isOdd ? [{ code: "gain", found: gain, wanted: usual } as const] : []),
    ]) {
      const before = group.notes.get(noteKey(mismatch));
      const isMore = before !== undefined && before.mismatch.found > mismatch.found;
      group.notes.set(noteKey(mismatch), {
        mismatch: isMore ? before.mismatch : mismatch,
        count: (before?.count ?? 0) + 1,
      });
    }
  }
  return [...groups.values()].map((g) => ({ ...g, notes: [...g.notes.values()] }));
}

/** What becomes of one file: `asked` = it waits for what a person says, of an open question or a doubt. */
export type Outcome = "booked" | "known" | "asked" | "refused";

/** Turns read files into edits and a report. A file known already, by its header and its data, makes no edit. */
export function intake(
  library: Library,
  files: readonly ReadFile[],
  { answers = {}, putRight = {}, sure = [] }: Said = {},
): {
  readonly edits: readonly EditOf[];
  readonly report: IntakeReport;
  /** In the order of the files. */
  readonly outcomes: readonly Outcome[];
} {
  const { context, projects } = bookingContext(library);
  const book = exposureBooker(context);
  const rateOf = worthRates(projects);
  const have = knownFiles(library);
  const shot = takenAt(library);
  const placed: Placed[] = [];
  const measured: EditOf[] = [];
  const refused: { name: string; why: LeftOut }[] = [];
  const open = new Map<string, OpenGroup>();
  const clocks = clocksOf(library, files, putRight);
  let known = 0;
  const outcomes = files.map((): Outcome => "known");
  for (const [i, { name, facts }] of files.entries()) {
    const refuse = (why: LeftOut) => {
      refused.push({ name, why });
      outcomes[i] = "refused";
    };
    if (!facts.ok) {
      refuse({ kind: "unreadable", code: facts.error.code });
      continue;
    }
    const booked = book(putBack(facts.value, clocks.hoursOf(i)), (key) => answers[key]);
    if (!booked.ok) {
      refuse({ kind: "unplaced", fault: booked.error });
      continue;
    }
    const booking = booked.value;
    if (booking.kind === "question") {
      open.set(booking.key, { question: booking, count: (open.get(booking.key)?.count ?? 0) + 1 });
      outcomes[i] = "asked";
      continue;
    }
    const late = booking.kind === "light" ? booking.data.startMs! - library.desk.now() : 0;
    if (late > CLOCKS_OFF_MS) {
      const day = new Date(library.desk.now() + late).toISOString().slice(0, 10);
      refuse({ kind: "outOfRange", message: `taken on ${day}, which is still to come` });
      continue;
    }
    const twin = booking.kind === "light" ? shot.find(booking.data) : null;
    if (twin) {
      known++;
      // A table, or a header written since, can still say what its stars were like.
      const { measure } = facts.value;
      if (measure && twin.data.measure === undefined && twin.data.memberId === context.memberId)
        measured.push({ kind: "contribution", id: twin.id, data: { ...twin.data, measure }, baseRev: twin.rev });
      continue;
    }
    const kind = booking.kind === "light" ? "contribution" : "calibration";
    const { id, isKnown } = have.look(kind, facts.value);
    if (isKnown) {
      known++;
      continue;
    }
    const edit: EditOf =
      booking.kind === "light"
        ? { kind: "contribution", id, data: withWorth(booking.data, rateOf), baseRev: "latest" }
        : { kind: "calibration", id, data: booking.data, baseRev: "latest" };
    const checked = decodeData(edit.kind, edit.data);
    if (!checked.ok) {
      refuse({ kind: "outOfRange", message: checked.error.message });
      continue;
    }
    have.add(id);
    if (booking.kind === "light") {
      shot.add(booking.data);
      clocks.add(i, { placeId: booking.data.placeId, startMs: utcMs(booking.data.startMs!) });
      placed.push({ ...booking, file: i, booking, edit, facts: facts.value });
    } else placed.push({ kind: "calibration", file: i, booking, edit });
  }
  const doubts = doubtsOf(
    library,
    placed.flatMap((p) => (p.kind === "light" ? p : [])),
    sure,
  );
  const isCertain = (p: Placed) => p.kind !== "light" || !doubts.isLeftOut(p);
  const certain = placed.filter(isCertain);
  for (const p of placed) outcomes[p.file] = isCertain(p) ? "booked" : "asked";
  return {
    outcomes,
    edits: [...measured, ...certain.map((p) => p.edit)],
    report: {
      open: [...open.values()],
      doubts: doubts.groups,
      booked: groupsOf(certain, gainsOf(files)),
      known,
      measured: measured.length,
      refused,
      total: files.length,
      clocks: clocks.wrong(),
    },
  };
}

/** An entry with the worth of that night. */
const withWorth = (data: ContributionData, rateOf: ReturnType<typeof worthRates>): ContributionData => ({
  ...data,
  worthRate: rateOf(data.projectId, data.channel, data.night),
});
