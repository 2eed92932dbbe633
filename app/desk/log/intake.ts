import { meOf } from "~/desk/records/parts";
import {
  clockAheadHours,
  clockSessions,
  LIT_DEG,
  type IntakeData,
  exposureBooker,
  fileIdentity,
  type Booking,
  type BookingAnswer,
  type BookingFault,
  type BookingQuestion,
  type ContributionData,
  type ExposureFacts,
  type Mismatch,
} from "~/core/ledger";
import { decodeData, type EditOf } from "~/core/records";
import { placeSky } from "~/core/night";
import { nightOf, sunAltitudeDeg, type NightSky } from "~/core/sky";
import { HOUR_MS, utcMs, type UtcMs } from "~/core/time";
import type { Library } from "~/desk/records/library";
import type { ReadFile } from "~/workers/files";
import { bookingContext, worthRates } from "./booking-context";

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
  readonly booked: readonly BookedGroup[];
  readonly known: number;
  /** Of the known ones, those whose stars are told now. */
  readonly measured: number;
  readonly refused: readonly { readonly name: string; readonly why: LeftOut }[];
  readonly total: number;
  /** Sessions of cameras whose clock seems to be wrong, or was put right for this report. */
  readonly clocks: readonly WrongClock[];
}

/** A camera's clock that seems to be hours off, for one session of it. */
export interface WrongClock {
  /** Which of the dropped files are meant (`clockSessions`). */
  readonly session: string;
  readonly camera: string | null;
  /** When its first and its last light were begun by that clock, ms UTC: what a clock without a zone says is of the place's. */
  readonly firstMs: UtcMs;
  readonly lastMs: UtcMs;
  /** Files of the session, lights and others: what putting it right moves. */
  readonly files: number;
  /** Its lights that have a place, how many of them would have been taken under the Sun, and how high that stood at most, degrees. */
  readonly lights: number;
  readonly lit: number;
  readonly sunDeg: number;
  /** Whole hours ahead; negative = behind. */
  readonly hours: number;
  readonly zone: string;
  /** Whether this report has it put right. */
  readonly isPutRight: boolean;
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

/** A light by its camera's own clock, at the place it was booked to. */
interface DatedLight {
  readonly placeId: string;
  readonly startMs: UtcMs;
}

/** By how many whole hours the clock of some lights seems to be ahead, and what says so; null where it is right. */
function clockOf(
  library: Library,
  lights: readonly DatedLight[],
): Pick<WrongClock, "firstMs" | "lastMs" | "lights" | "lit" | "sunDeg" | "hours" | "zone"> | null {
  const skies = new Map<string, NightSky>();
  const at = lights.flatMap(({ placeId, startMs }) => {
    const place = library.places.find((p) => p.id === placeId)?.data;
    return place ? [{ place, placeId, startMs }] : [];
  });
  const [first] = at;
  if (!first) return null;
  const sunDeg = (light: number, hours: number) => {
    const { place, placeId, startMs } = at[light]!;
    const ms = utcMs(startMs - hours * HOUR_MS);
    const night = nightOf(place, ms);
    const key = `${placeId} ${night}`;
    const sky = skies.get(key) ?? placeSky(place, night);
    skies.set(key, sky);
    return sunAltitudeDeg(sky, ms);
  };
  const hours = clockAheadHours(at.length, sunDeg);
  if (hours === null) return null;
  const heights = at.map((_, i) => sunDeg(i, 0));
  const times = at.map((l) => l.startMs);
  return {
    firstMs: utcMs(Math.min(...times)),
    lastMs: utcMs(Math.max(...times)),
    lights: at.length,
    lit: heights.filter((h) => h >= LIT_DEG).length,
    sunDeg: Math.max(...heights),
    hours,
    zone: first.place.timeZone,
  };
}

/** When a file was begun by its camera's own clock, ms; without a zone as if it ran on UTC. Tells files of one camera apart, no more. */
const ownTimeOf = (facts: ExposureFacts): number | null => facts.startMs ?? facts.wallMs;

/** The clocks of some files: which session each is of, and which sessions' clocks seem to be wrong. */
function clocksOf(library: Library, files: readonly ReadFile[], putRight: Readonly<Record<string, number>>) {
  const stamps = files.map(({ facts }) =>
    facts.ok ? { camera: facts.value.camera, atMs: ownTimeOf(facts.value) } : { camera: null, atMs: null },
  );
  const sessions = clockSessions(stamps);
  const lights = new Map<string, DatedLight[]>();
  return {
    hoursOf: (i: number): number => putRight[sessions[i] ?? ""] ?? 0,
    /** Takes a light into account that was booked, shifted by the hours its clock was put back. */
    add(i: number, { placeId, startMs }: DatedLight) {
      const session = sessions[i];
      if (session == null) return;
      const of = lights.get(session) ?? [];
      lights.set(session, of);
      of.push({ placeId, startMs: utcMs(startMs + (putRight[session] ?? 0) * HOUR_MS) });
    },
    wrong: (): WrongClock[] =>
      [...lights].flatMap(([session, of]) => {
        const clock = clockOf(library, of);
        if (!clock) return [];
        const mine = stamps.filter((_, i) => sessions[i] === session);
        return {
          ...clock,
          session,
          camera: mine[0]?.camera ?? null,
          files: mine.length,
          isPutRight: putRight[session] !== undefined,
        };
      }),
  };
}

/** Subs by rig, start to the second, and length: a file that was solved or renamed since is the same sub as before. */
function takenAt(library: Library) {
  type Sub = Pick<ContributionData, "rigId" | "startMs" | "exposureSec">;
  const key = (rigId: string, sec: number, exposureSec: number) => `${rigId}|${sec}|${exposureSec}`;
  const known = new Map<string, Library["contributions"][number] | null>();
  const put = ({ rigId, startMs, exposureSec }: Sub, entry: Library["contributions"][number] | null) => {
    if (startMs !== null) known.set(key(rigId, Math.round(startMs / 1000), exposureSec), entry);
  };
  for (const entry of library.contributions) if (entry.data.taken === 1) put(entry.data, entry);
  return {
    add: (sub: Sub) => put(sub, null),
    /** The entry of the log that is the same sub, begun within a second of it. */
    find: ({ rigId, startMs, exposureSec }: Sub) => {
      const sec = Math.round((startMs ?? 0) / 1000);
      for (const off of [0, -1, 1]) {
        const entry = known.get(key(rigId, sec + off, exposureSec));
        if (entry) return entry;
      }
      return null;
    },
  };
}

/** What an intake came to, as a record; words come from whoever tells it. */
export const intakeEdit = (library: Library, data: Omit<IntakeData, "memberId" | "atMs">): EditOf => ({
  kind: "intake",
  id: library.desk.newId("intake"),
  data: { ...data, memberId: meOf(library) ?? "me", atMs: library.desk.now() },
  baseRev: null,
});

/** Turns read files into edits and a report. A file known already, by its header, makes no edit. */
export function intake(
  library: Library,
  files: readonly ReadFile[],
  answers: Readonly<Record<string, BookingAnswer>> = {},
  /** Hours that the clock of a session is put back, by session. */
  putRight: Readonly<Record<string, number>> = {},
): { readonly edits: readonly EditOf[]; readonly report: IntakeReport } {
  const { context, projects } = bookingContext(library);
  const book = exposureBooker(context);
  const rateOf = worthRates(projects);
  const have = new Set([...library.contributions, ...library.calibrations].map((r) => r.id));
  const shot = takenAt(library);
  const edits: EditOf[] = [];
  const groups = new Map<
    string,
    { booking: Booking; count: number; notes: Map<string, { mismatch: Mismatch; count: number }> }
  >();
  const refused: { name: string; why: LeftOut }[] = [];
  const open = new Map<string, OpenGroup>();
  const usualGain = gainsOf(files);
  const clocks = clocksOf(library, files, putRight);
  let known = 0;
  let measured = 0;
  for (const [i, { name, facts }] of files.entries()) {
    if (!facts.ok) {
      refused.push({ name, why: { kind: "unreadable", code: facts.error.code } });
      continue;
    }
    const { startMs } = facts.value;
    const shiftHours = clocks.hoursOf(i);
    const put = <T extends number>(ms: T | null): T | null => (ms === null ? null : ((ms - shiftHours * HOUR_MS) as T));
    const right =
      shiftHours === 0 ? facts.value : { ...facts.value, startMs: put(startMs), wallMs: put(facts.value.wallMs) };
    const booked = book(right, (key) => answers[key]);
    if (!booked.ok) {
      refused.push({ name, why: { kind: "unplaced", fault: booked.error } });
      continue;
    }
    const booking = booked.value;
    const late = booking.kind === "light" ? booking.data.startMs! - library.desk.now() : 0;
    if (late > CLOCKS_OFF_MS) {
      const day = new Date(library.desk.now() + late).toISOString().slice(0, 10);
      refused.push({ name, why: { kind: "outOfRange", message: `taken on ${day}, which is still to come` } });
      continue;
    }
    if (booking.kind === "question") {
      open.set(booking.key, { question: booking, count: (open.get(booking.key)?.count ?? 0) + 1 });
      continue;
    }
    const twin = booking.kind === "light" ? shot.find(booking.data) : null;
    if (twin) {
      known++;
      // A table, or a header written since, can still say what its stars were like.
      const { measure } = facts.value;
      if (measure && twin.data.measure === undefined && twin.data.memberId === context.memberId) {
        edits.push({ kind: "contribution", id: twin.id, data: { ...twin.data, measure }, baseRev: twin.rev });
        measured++;
      }
      continue;
    }
    const id = `${booking.kind === "light" ? "contribution" : "calibration"}-file-${fileIdentity(facts.value)}`;
    if (have.has(id)) {
      known++;
      continue;
    }
    const edit: EditOf =
      booking.kind === "light"
        ? {
            kind: "contribution",
            id,
            data: {
              ...booking.data,
              worthRate: rateOf(booking.data.projectId, booking.data.channel, booking.data.night),
            },
            baseRev: "latest",
          }
        : { kind: "calibration", id, data: booking.data, baseRev: "latest" };
    const checked = decodeData(edit.kind, edit.data);
    if (!checked.ok) {
      refused.push({ name, why: { kind: "outOfRange", message: checked.error.message } });
      continue;
    }
    have.add(id);
    if (booking.kind === "light") shot.add(booking.data);
    edits.push(edit);
    const group = groups.get(groupKey(booking)) ?? {
      booking,
      count: 0,
      notes: new Map<string, { mismatch: Mismatch; count: number }>(),
    };
    group.count++;
    if (booking.kind === "light") {
      const note = (mismatch: Mismatch) => {
        const key = noteKey(mismatch);
        const before = group.notes.get(key);
        const isMore = before !== undefined && before.mismatch.found > mismatch.found;
        group.notes.set(key, { mismatch: isMore ? before.mismatch : mismatch, count: (before?.count ?? 0) + 1 });
      };
      booking.mismatches.forEach(note);
      clocks.add(i, { placeId: booking.data.placeId, startMs: utcMs(booking.data.startMs!) });
      const [gain, usual] = [booking.data.gain, usualGain(facts.value)];
      if (gain !== undefined && usual !== null && gain !== usual) note({ code: "gain", found: gain, wanted: usual });
    }
    groups.set(groupKey(booking), group);
  }
  return {
    edits,
    report: {
      open: [...open.values()],
      booked: [...groups.values()].map((g) => ({ ...g, notes: [...g.notes.values()] })),
      known,
      measured,
      refused,
      total: files.length,
      clocks: clocks.wrong(),
    },
  };
}
