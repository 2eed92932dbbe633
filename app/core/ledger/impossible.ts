import type { NightDate } from "~/core/time";
import type { ContributionData } from "./contribution";
import type { Mismatch } from "./booking-context";
import type { ExposureFacts } from "./exposure-facts";

/** Why an entry of the log cannot be, as far as its own words and the rest of the log tell. */
export type Impossible =
  /** Of a night before the project began. */
  | { readonly code: "beforeBegun"; readonly startedOn: string }
  /** While the same rig exposed another one. */
  | { readonly code: "twiceAtOnce" }
  /** With the rest of its night the rig would have exposed for so many minutes, in a night of so many from sunset to sunrise. */
  | { readonly code: "longerThanNight"; readonly minutes: number; readonly nightMin: number }
  /** The file does not say where it points, and is not as the rig's files are: it may be of something else altogether. */
  | { readonly code: "stranger"; readonly mismatches: readonly Mismatch[] };

/** What an entry of the log is held against. */
export interface PossibleAt {
  /** The night on which a project began; null where that is not known. */
  readonly startedOn: (projectId: string) => string | null;
  /** From sunset to sunrise, minutes. */
  readonly nightMin: (placeId: string, night: NightDate) => number;
  /** What the log has of a rig's night already. */
  readonly known: (rigId: string, night: string) => readonly ContributionData[];
}

/** What clocks of headers are off, and rounding of starts to a second. */
const CLOCK_SEC = 2;
/** By what a night's exposures may be longer than it: clocks and rounding, minutes. */
const NIGHT_SLACK_MIN = 5;

const endMs = (d: ContributionData): number => (d.startMs ?? 0) + d.exposureSec * 1000;
const minutesOf = (d: ContributionData): number => (d.taken * d.exposureSec) / 60;

/** Which new entries of one rig's night were taken while it took another one: of two new ones the later. */
function twice(fresh: readonly ContributionData[], known: readonly ContributionData[]): ReadonlySet<ContributionData> {
  const isSingle = (d: ContributionData) => d.startMs !== null && d.taken === 1;
  const isFresh = new Set(fresh);
  const all = [...known, ...fresh].filter(isSingle).sort((a, b) => a.startMs! - b.startMs!);
  const doubted = new Set<ContributionData>();
  let last: ContributionData | null = null;
  for (const entry of all) {
    if (last && endMs(last) - entry.startMs! > CLOCK_SEC * 1000) {
      if (isFresh.has(entry)) {
        doubted.add(entry);
        continue;
      }
      if (isFresh.has(last)) doubted.add(last);
    }
    if (!last || endMs(entry) > endMs(last)) last = entry;
  }
  return doubted;
}

/** Which of some new entries cannot be, in their order; null = nothing speaks against it. */
export function impossibles(entries: readonly ContributionData[], at: PossibleAt): readonly (Impossible | null)[] {
  const found = new Map<ContributionData, Impossible>();
  const nights = new Map<string, ContributionData[]>();
  for (const entry of entries) {
    const startedOn = at.startedOn(entry.projectId);
    if (startedOn !== null && entry.night < startedOn) {
      found.set(entry, { code: "beforeBegun", startedOn });
      continue;
    }
    const key = `${entry.rigId}|${entry.night}`;
    nights.set(key, [...(nights.get(key) ?? []), entry]);
  }
  for (const fresh of nights.values()) {
    const { rigId, placeId, night } = fresh[0]!;
    const known = at.known(rigId, night);
    for (const entry of twice(fresh, known)) found.set(entry, { code: "twiceAtOnce" });
    const left = fresh.filter((e) => !found.has(e));
    const minutes = [...known, ...left].reduce((sum, d) => sum + minutesOf(d), 0);
    const nightMin = at.nightMin(placeId, night as NightDate);
    if (minutes > nightMin + NIGHT_SLACK_MIN)
      for (const entry of left) found.set(entry, { code: "longerThanNight", minutes, nightMin });
  }
  return entries.map((e) => found.get(e) ?? null);
}

const OF_THE_RIG: ReadonlySet<Mismatch["code"]> = new Set(["camera", "focalLength", "pixels"]);

/** Whether a file that does not say where it points differs from the rig it was placed with; null where it does say, or fits. */
export function strangerIn(facts: ExposureFacts, mismatches: readonly Mismatch[]): Impossible | null {
  if (facts.centre !== null) return null;
  const of = mismatches.filter((m) => OF_THE_RIG.has(m.code));
  return of.length > 0 ? { code: "stranger", mismatches: of } : null;
}
