import type { EditOf } from "~/core/records";
import type { ForecastNote, ReadForecast, readTypedForecast } from "~/core/formats";
import { clearChanceOn, type Place } from "~/core/night";
import {
  joinHours,
  nightWeather,
  reliabilityBins,
  scoredHours,
  trackRecord,
  type ForecastHour,
  type Outcome,
  type ReliabilityBin,
  type TrackRecord,
  type WeatherHour,
} from "~/core/weather";
import { nightOf } from "~/core/sky";
import { type NightDate, type UtcMs } from "~/core/time";
import type { AskFault } from "~/services/ask";
import type { ForecastSource } from "~/services/source";
import { slot, type Desk } from "~/desk/desk";
import { theStore } from "~/desk/records/kept";
import { outcomesAt, withLearntChances } from "./learnt";
import type { Entity, Library } from "~/desk/records/library";
import { topic } from "~/desk/memo";

/** One source on one night: what it says, how it has done here, and what went wrong with asking it. */
export interface SourceState {
  readonly id: string;
  readonly name: string;
  /** Not asked yet; answered; silent, so that the last good copy counts; nothing at all. */
  readonly state: "asking" | "fresh" | "kept" | "silent";
  readonly fault: AskFault | null;
  readonly notes: readonly ForecastNote[];
  readonly issuedMs: UtcMs | null;
  readonly hours: readonly ForecastHour[];
  /** A person's own word, which stands instead of the others for its hours. */
  readonly isOwn: boolean;
  /** As the service asks to be named; "" = it asks for nothing. */
  readonly credit: string;
  readonly record: TrackRecord;
  /** What it told here, in tenths of odds, and what came. */
  readonly reliability: readonly ReliabilityBin[];
}

/** The weather of a night at a place. */
export interface Weather {
  readonly sources: readonly SourceState[];
  /** Simulated services speak of this night. */
  readonly isSimulated: boolean;
  /** Some could be asked. */
  readonly canSimulate: boolean;
  readonly hours: readonly WeatherHour[];
  readonly climatology: number;
  /** The last look of this night, if any. */
  readonly look: Outcome | null;
}

/** A source's answer in this tab: kept for ten minutes, so that going from screen to screen asks nobody again. */
interface Asked {
  readonly atMs: number;
  readonly fault: AskFault | null;
  readonly notes: readonly ForecastNote[];
}
/** By place and service: the last answer, and questions on their way, so that whoever asks meanwhile waits for the same answer. */
const questions = slot(() => ({ asked: new Map<string, Asked>(), underWay: new Map<string, Promise<void>>() }));
const ASK_AGAIN_MS = 10 * 60_000;

/** The services that are asked: with the real clock the simulated ones only where their owner has switched them on. */
export const servicesOf = (library: Library): readonly ForecastSource[] =>
  library.desk.sources.all.filter(
    (s) => !s.isSimulated || library.desk.isDemo || library.settings?.data.simulatedServices === true,
  );

/** Whether there is anybody to play the simulated services: a host of files does not. */
export const canSimulate = (desk: Desk): boolean => desk.sources.all.some((s) => s.isSimulated);

/** Forgets what was asked, so that everything is asked again. */
export const askAnew = (desk: Desk): void => desk.at(questions).asked.clear();

const forecastId = (placeId: string, sourceId: string, night: NightDate) => `forecast-${placeId}-${sourceId}-${night}`;

const RELIABILITY_BINS = 5;
const records = topic<Pick<SourceState, "record" | "reliability">>(60);

/** What is stored of a night's weather, without asking anybody. */
export function weatherKept(
  library: Library,
  place: Entity<Place>,
  night: NightDate,
  hours: readonly UtcMs[],
): Weather {
  const mine = library.forecasts.filter((f) => f.data.placeId === place.id);
  const outcomes = outcomesAt(library, place.id);
  const services = servicesOf(library);
  const { all: everyService } = library.desk.sources;
  const { asked } = library.desk.at(questions);
  const known = new Map(services.map((s) => [s.id, s.name]));
  const isOff = (id: string) => everyService.some((s) => s.id === id && !services.includes(s));
  for (const f of mine)
    if (f.data.night === night && !known.has(f.data.sourceId) && !isOff(f.data.sourceId))
      known.set(f.data.sourceId, f.data.sourceName);
  const sources = [...known].map(([id, name]): SourceState => {
    const said = mine.find((f) => f.data.sourceId === id && f.data.night === night)?.data;
    const tonight = said?.hours ?? [];
    const all = mine.filter((f) => f.data.sourceId === id);
    const answer = asked.get(`${place.id} ${id}`);
    const isService = everyService.some((s) => s.id === id);
    return {
      id,
      name,
      state:
        answer?.fault || !isService
          ? tonight.length > 0
            ? "kept"
            : "silent"
          : answer
            ? tonight.length > 0
              ? "fresh"
              : "silent"
            : "asking",
      fault: answer?.fault ?? null,
      notes: answer?.notes ?? [],
      issuedMs: tonight.reduce<UtcMs | null>(
        (last, h) => (last === null || h.issuedMs > last ? h.issuedMs : last),
        null,
      ),
      hours: tonight,
      credit: everyService.find((s) => s.id === id)?.credit ?? "",
      isOwn: !isService && said !== undefined && !said.isOneMore,
      ...library.desk.memo(records, `${place.id} ${id}`, [outcomes, ...all], () => {
        const said = all.flatMap((f) => f.data.hours);
        return {
          record: trackRecord(said, outcomes),
          reliability: reliabilityBins(scoredHours(said, outcomes), RELIABILITY_BINS),
        };
      }),
    };
  });
  const climatology = clearChanceOn(withLearntChances(library, place).data, night);
  const looks = library.looks
    .filter((l) => l.data.placeId === place.id && nightOf(place.data, l.data.atMs as UtcMs) === night)
    .map((l): Outcome => ({ atMs: l.data.atMs as UtcMs, isClear: l.data.isClear }))
    .sort((a, b) => a.atMs - b.atMs);
  const isSimulated = services.some((s) => s.isSimulated && sources.some((x) => x.id === s.id && x.hours.length > 0));
  return {
    sources,
    isSimulated,
    canSimulate: canSimulate(library.desk),
    hours: nightWeather({ hours, sources, climatology, looks }),
    climatology,
    look: looks.at(-1) ?? null,
  };
}

/** The edits that store an answer: one record a night, joined with what was known, and none where nothing is new. */
export function forecastEdits(
  library: Library,
  place: Entity<Place>,
  read: ReadForecast,
  { isOneMore = false }: { readonly isOneMore?: boolean } = {},
): EditOf<"forecast">[] {
  const byNight = new Map<NightDate, ForecastHour[]>();
  for (const hour of read.hours) {
    const night = nightOf(place.data, hour.atMs);
    byNight.set(night, [...(byNight.get(night) ?? []), hour]);
  }
  return [...byNight].flatMap(([night, news]): EditOf<"forecast">[] => {
    const id = forecastId(place.id, read.sourceId, night);
    const before = library.forecasts.find((f) => f.id === id);
    const hours = joinHours(before?.data.hours ?? [], news);
    const isSame = isOneMore === (before?.data.isOneMore ?? false);
    if (hours.length === 0 || (isSame && JSON.stringify(hours) === JSON.stringify(before?.data.hours ?? []))) return [];
    const { sourceId, sourceName } = read;
    const data = { placeId: place.id, sourceId, sourceName, night, hours, ...(isOneMore ? { isOneMore } : {}) };
    return [{ kind: "forecast", id, data, baseRev: "latest" }];
  });
}

/** Asks every service that was not asked lately, stores what is new, and resolves when all have answered or failed. */
export async function askAll(library: Library, place: Entity<Place>, signal: AbortSignal): Promise<void> {
  const { asked, underWay } = library.desk.at(questions);
  const keyOf = (s: ForecastSource) => `${place.id} ${s.id}`;
  const isDue = (s: ForecastSource) => {
    const last = asked.get(keyOf(s));
    return !last || Math.abs(library.desk.now() - last.atMs) > ASK_AGAIN_MS;
  };
  // Again where another page asked and was left before the answer.
  for (;;) {
    signal.throwIfAborted();
    const due = servicesOf(library).filter(isDue);
    const others = due.flatMap((s) => underWay.get(keyOf(s)) ?? []);
    const mine = due.filter((s) => !underWay.has(keyOf(s)));
    const work = askEach(library, place, mine, signal).finally(() => mine.forEach((s) => underWay.delete(keyOf(s))));
    for (const s of mine) underWay.set(keyOf(s), work);
    await Promise.all([work, ...others.map((o) => o.catch(() => undefined))]);
    if (others.length === 0) return;
  }
}

async function askEach(
  library: Library,
  place: Entity<Place>,
  services: readonly ForecastSource[],
  signal: AbortSignal,
): Promise<void> {
  const { sources } = library.desk;
  const { latitudeDeg, longitudeDeg } = place.data;
  const at = { nowMs: library.desk.now(), latitudeDeg, longitudeDeg };
  const answers = await Promise.all(services.map(async (s) => [s, await sources.ask(s, at, signal)] as const));
  const edits: EditOf<"forecast">[] = [];
  for (const [source, answer] of answers)
    if (answer.ok)
      edits.push(...forecastEdits(library, place, { ...answer.value, sourceId: source.id, sourceName: source.name }));
  if (edits.length > 0) await library.desk.at(theStore).act(edits);
  // Only now: until what was told is kept, whoever asks waits for it.
  const { asked } = library.desk.at(questions);
  for (const [source, answer] of answers)
    asked.set(`${place.id} ${source.id}`, {
      atMs: library.desk.now(),
      fault: answer.ok ? null : answer.error,
      notes: answer.ok ? answer.value.notes : [],
    });
}

/** Reads a forecast typed in lines; what reads it comes with the first one. */
export async function readTyped(
  ...typed: Parameters<typeof readTypedForecast>
): Promise<ReturnType<typeof readTypedForecast>> {
  const reader = await import("~/services/read-typed");
  return reader.readTypedForecast(...typed);
}
