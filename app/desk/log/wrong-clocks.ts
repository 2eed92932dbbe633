import { clockAheadHours, clockSessions, LIT_DEG, type ExposureFacts } from "~/core/ledger";
import { placeSky } from "~/core/night";
import { nightOf, sunAltitudeDeg, type NightSky } from "~/core/sky";
import { HOUR_MS, utcMs, type UtcMs } from "~/core/time";
import type { Library } from "~/desk/records/library";
import type { ReadFile } from "~/workers/files";

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
export function clocksOf(library: Library, files: readonly ReadFile[], putRight: Readonly<Record<string, number>>) {
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
