import type { Channel } from "~/core/exposure";
import { bestRate, clearChanceOn, type Place } from "~/core/night";
import { nightOutcomes } from "~/core/ledger";
import {
  URGENCIES,
  replannedFrom,
  USUAL_PERSON_RULES,
  hoursOf,
  isWork,
  outWindow,
  weightOf,
  type BegunData,
  type HourOdds,
  type NightAct,
  type Lock,
  type PersonRules,
  type SeasonPlace,
  type SeasonPlan,
  type SeasonProject,
  type SeasonQuestion,
} from "~/core/plan";
import { NIGHT_PERSISTENCE, USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import { nightOf } from "~/core/sky";
import { addNights, nightDate, type NightDate, type UtcInterval, type UtcMs } from "~/core/time";
import { choiceOf, moonOf } from "./choice";
import { instantOfRev } from "~/core/crew";
import { withLearntChances } from "./learnt";
import type { Entity, Library } from "./library";
import { nightOver } from "./nights";
import { libraryHere } from "./open-library";
import { meOf } from "./parts";
import { ownContextsOf, type ProjectContext } from "./project";
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import { keptPlan, leavePlan, readKeptPlan, shownPlan, type KeptPlan } from "~/storage/kept-plan";
import { planSeasonInWorker } from "~/workers/season";
import { recaller } from "./recall";
import { askAll, weatherKept } from "./weather";

/** Nights planned: half a year, the season of what is up now. */
export const SEASON_NIGHTS = 180;
/** Nights from tonight on that forecasts are asked for. */
export const FORECAST_NIGHTS = 3;
const RUNS = 300; // the odds are known to three points; each night of each is planned anew

/** How nights are planned for the owner of a library. */
export const rulesOf = (library: Library): PersonRules => library.settings?.data.planning ?? USUAL_PERSON_RULES;

/** By what light a want is weighed: as kept by all that the rig sees, by light by the sky alone, as its books are kept. */
function lightOf(c: ProjectContext, { channel, subSec }: { readonly channel: Channel; readonly subSec: number }) {
  const { data } = c.place;
  if (c.hours === "light") return { bestRate: c.bestRates[channel] ?? bestRate(data, c.layout.centre, channel) };
  const own = c.ownLight(channel, subSec);
  return { bestRate: bestRate(data, c.layout.centre, channel, own), ...(own ? { own } : {}) };
}

/** A project as the season takes it: what is left of its channels, panels of one channel together. */
function seasonProject(c: ProjectContext): SeasonProject {
  const wants = new Map<string, { channel: (typeof c.needs)[number]["channel"]; subSec: number; goalMin: number; remainingMin: number }>(); // prettier-ignore
  for (const { channel, subSec, goalMin, remainingMin } of c.needs) {
    const key = `${channel} ${subSec}`;
    const sum = wants.get(key) ?? { channel, subSec, goalMin: 0, remainingMin: 0 };
    sum.goalMin += goalMin;
    sum.remainingMin += remainingMin;
    wants.set(key, sum);
  }
  const { urgency = "usual", deadline, rules = {} } = c.project.data;
  const all = [...wants.values()];
  const sum = (of: (w: (typeof all)[number]) => number) => all.reduce((s, w) => s + of(w), 0);
  const goalMin = sum((w) => w.goalMin);
  const { leastMin, cycle, first, clearRun } = rules;
  const round = c.panels.length > 1 && c.project.data.school === "allPanelsEveryNight" ? rules.roundSubs : undefined;
  return {
    id: c.id,
    priority: weightOf(URGENCIES[urgency], rules.isToFinish ?? false, goalMin, sum((w) => w.remainingMin)), // prettier-ignore
    counts: c.hours,
    ...(c.panels.length > 1 ? { pointings: c.panels.length } : {}),
    shot: {
      panels: c.panels.map(({ number, centre }) => ({ number, centre })),
      needs: c.needs,
      school: c.project.data.school,
      ...(rules.roundSubs === undefined ? {} : { roundSubs: rules.roundSubs }),
    },
    ...(leastMin === undefined ? {} : { leastMin }),
    ...(cycle === undefined ? {} : { cycle }),
    ...(first === undefined ? {} : { first }),
    ...(clearRun === undefined ? {} : { clearRun }),
    ...(round === undefined ? {} : { round }),
    target: c.layout.centre,
    placeId: c.place.id,
    rigId: c.rig.id,
    moon: c.moon,
    wants: all.map((w) => ({
      ...w,
      ...lightOf(c, w),
      ...(c.part.data.onlyAt?.[w.channel] === undefined ? {} : { onlyAt: c.part.data.onlyAt[w.channel]! }),
    })),
    ...(deadline === undefined ? {} : { deadline: nightDate(deadline) }),
  };
}

/** What forecasts say of a night: its odds by the hour, and the stretch worth being out for; null where nobody says anything. */
export function forecastOf(
  library: Library,
  place: Entity<Place>,
  night: NightDate,
): { readonly hours: readonly HourOdds[]; readonly within: UtcInterval | null } | null {
  const { steps } = nightOver(place.data, night, moonOf(library));
  const { hours } = weatherKept(library, place, night, hoursOf(steps));
  if (hours.every((h) => h.basis === "longTerm")) return null;
  const limits = ownContextsOf(library).flatMap((c) =>
    c.place.id === place.id ? (c.rig.data.gustLimitKmh ?? []) : [],
  );
  const { windShare } = place.data;
  return {
    hours: hours.map(({ atMs, odds }) => ({ atMs, odds: Math.round(odds * 1000) / 1000 })),
    within: outWindow(hours, {
      gustLimitKmh: Math.min(...limits, USUAL_GUST_LIMIT_KMH),
      ...(windShare === undefined ? {} : { windShare }),
    }),
  };
}

/** A place with what is known of its weather from a night on. After the forecasts the odds fall back to the place's own, as clear nights come in runs. */
function seasonPlace(library: Library, place: Entity<Place>, from: NightDate): SeasonPlace {
  const hours: Record<NightDate, readonly HourOdds[]> = {};
  const within: Record<NightDate, UtcInterval> = {};
  let last: { readonly night: number; readonly odds: number } | null = null;
  for (let n = 0; n < FORECAST_NIGHTS; n++) {
    const night = addNights(from, n);
    const said = forecastOf(library, place, night);
    if (!said || said.hours.length === 0) continue;
    hours[night] = said.hours;
    if (said.within) within[night] = said.within;
    last = { night: n, odds: said.hours.reduce((s, h) => s + h.odds, 0) / said.hours.length };
  }
  const wasClear = lastNight(library, place, from);
  if (!last && wasClear !== null) last = { night: -1, odds: wasClear ? 1 : 0 };
  const known = last;
  return {
    id: place.id,
    place: place.data,
    hours,
    within,
    chances: Array.from({ length: SEASON_NIGHTS }, (_, n) => {
      const own = clearChanceOn(place.data, addNights(from, n));
      return known && n > known.night ? own + NIGHT_PERSISTENCE ** (n - known.night) * (known.odds - own) : own;
    }),
  };
}

/** Whether the night before was clear at a place, as far as anybody wrote down. */
function lastNight(library: Library, place: Entity<Place>, from: NightDate): boolean | null {
  const before = addNights(from, -1);
  const log = library.log.byPlace.get(place.id)?.filter((c) => c.data.night === before) ?? [];
  return (
    nightOutcomes(
      { ...place.data, id: place.id },
      library.looks.map((l) => l.data),
      log.map((c) => c.data),
    ).find((o) => o.night === before)?.isClear ?? null
  );
}

/** A place as the season takes it, for nights spent there; null when it is gone. */
export function placeInSeason(library: Library, placeId: string): SeasonPlace | null {
  const place = library.places.find((p) => p.id === placeId);
  const { from } = seasonQuestion(library);
  return place ? seasonPlace(library, withLearntChances(library, place), from) : null;
}

/** Plans are provisional as long as something is being asked. */
export async function whileAsking<T>(work: Promise<T>): Promise<T> {
  asking++;
  try {
    return await work;
  } finally {
    asking--;
  }
}

/** Asks the forecasts of all places of the season; whether there was anything new. */
export async function askForecasts(signal: AbortSignal): Promise<boolean> {
  const before = await libraryHere();
  const places = [...new Map(ownContextsOf(before).map((c) => [c.place.id, c.place])).values()];
  await whileAsking(Promise.all(places.map((place) => askAll(before, place, signal))));
  return (await libraryHere()).forecasts !== before.forecasts;
}

/** The latest look at tonight's sky: what comes after it is planned anew. */
function lookedAt(library: Library, places: readonly Entity<Place>[], night: NightDate): UtcMs | null {
  const looks = places.flatMap((place) => {
    const { look } = weatherKept(library, place, night, []);
    return look ? [look.atMs] : [];
  });
  return looks.length === 0 ? null : (Math.max(...looks) as UtcMs);
}

/** The night that has begun, as it was kept then; null where it has not. */
export function begunOn(library: Library, night: NightDate): BegunData | null {
  const me = meOf(library);
  return library.begunNights.find((b) => b.data.night === night && b.data.memberId === me)?.data ?? null;
}

/** What happened in a night so far: looks, and subs written down. */
function actsOf(library: Library, places: readonly Entity<Place>[], night: NightDate): NightAct[] {
  const me = meOf(library);
  const looks = library.looks
    .filter((l) => places.some((p) => p.id === l.data.placeId && nightOf(p.data, l.data.atMs as UtcMs) === night))
    .map((l) => ({ atMs: l.data.atMs, isClear: l.data.isClear }));
  const entries = (library.log.byNight.get(night) ?? [])
    .filter((c) => c.data.memberId === me)
    .map((c) => ({ atMs: instantOfRev(c.rev), isClear: null }));
  return [...looks, ...entries];
}

const locksOf = recaller<readonly Lock[]>(4);
const questions = recaller<SeasonQuestion>(4);

/** All that the plan of the owner of a library is made from. The same object as long as nothing of it changed. */
export function seasonQuestion(library: Library): SeasonQuestion {
  const { today } = choiceOf(library, new URLSearchParams());
  const contexts = ownContextsOf(library);
  const me = meOf(library) ?? "me";
  const parts = [
    today,
    library.looks,
    library.begunNights,
    library.forecasts,
    library.settings,
    library.locks,
    library.log,
    library.places,
    ...contexts,
  ];
  return questions("season", parts, () => {
    const bound = new Set(contexts.flatMap((c) => Object.values(c.part.data.onlyAt ?? {})));
    const driven = library.places.filter(
      (p) => bound.has(p.id) || rulesOf(library).drives?.some((d) => d.placeId === p.id),
    );
    const places = [...new Map([...contexts.map((c) => c.place), ...driven].map((p) => [p.id, p])).values()];
    const locks = locksOf("locks", [library.locks, me, ...contexts.map((c) => c.id)], () =>
      library.locks
        .filter((l) => l.data.memberId === me)
        .filter((l) => l.data.projectId === undefined || contexts.some((c) => c.id === l.data.projectId))
        .map((l) => ({ id: l.id, ...l.data })),
    );
    const begun = begunOn(library, today);
    const looked = lookedAt(library, places, today);
    const fromMs = begun ? replannedFrom(begun.atMs, actsOf(library, places, today)) : looked;
    return {
      from: today,
      nights: SEASON_NIGHTS,
      fromMs,
      ...(begun ? { begun: { fromMs, evenings: begun.evenings } } : {}),
      places: places.map((p) => seasonPlace(library, withLearntChances(library, p), today)),
      rigs: [
        ...new Map(
          contexts.map((c) => [
            c.rig.id,
            {
              id: c.rig.id,
              overheads: c.rig.data.overheads,
              flips: c.rig.data.flipsAtMeridian,
              changesFilters: c.rig.data.filterIds.length > 1,
            },
          ]),
        ).values(),
      ],
      standsBeforeDark: library.settings?.data.standsBeforeDark ?? true,
      projects: contexts.map(seasonProject),
      rules: rulesOf(library),
      locks,
      trips: [],
      persistence: NIGHT_PERSISTENCE,
      wasClear: places[0] ? lastNight(library, places[0], today) : null,
      runs: RUNS,
    };
  });
}

/** A plan being made: the best so far, and the ones still to come. */
export interface SeasonRun {
  readonly question: SeasonQuestion;
  /** The plan that its owner saw last; null where none was seen. */
  readonly before: () => SeasonPlan | null;
  /** The plan that this one took the place of; null where there was none. */
  readonly previous: () => SeasonPlan | null;
  /** The best plan so far; null before the first. */
  readonly latest: () => SeasonPlan | null;
  /** Hears of every better plan; gives the way to stop listening. */
  readonly listen: (onPlan: (plan: SeasonPlan) => void) => () => void;
  /** The plan that is not bettered any more. */
  readonly settled: Promise<SeasonPlan>;
  /** The same with its odds. */
  readonly whole: Promise<SeasonPlan>;
}

/** The plan that its owner has had before their eyes on the season's page: what moved is told against it. */
let seen: SeasonPlan | null = null;

/** Its owner has had this plan before their eyes: the next one is compared with it. */
export const markSeen = (plan: SeasonPlan): void => void (seen = plan);

/** Services that are being asked now: what is planned meanwhile is provisional. */
let asking = 0;

/** Whether forecasts are being asked, so that a plan is not the last word. */
export const isProvisional = (): boolean => asking > 0;

/** The plan that screens showed last: evenings stay as they were in it unless a change is worth more than staying. Read once from what the browser kept. */
let shown: Promise<KeptPlan | null> | null = null;
const shownLast = (): Promise<KeptPlan | null> => (shown ??= shownPlan().catch(() => null));

let run: { readonly sum: string; readonly butLocks: string; readonly it: SeasonRun } | null = null;

/** Whether a plan keeps all that stands in it by hand. */
function keeps(plan: SeasonPlan, locks: readonly Lock[]): boolean {
  return locks.every((lock) => {
    const blocks = plan.evenings
      .filter((e) => e.night === lock.night)
      .flatMap((e) => e.blocks.map((b) => ({ ...b, placeId: e.placeId })));
    const isIt = (b: (typeof blocks)[number]) =>
      (lock.projectId === undefined ||
        isWork(b, { projectId: lock.projectId, ...(lock.channel === undefined ? {} : { channel: lock.channel }) })) &&
      (lock.placeId === undefined || b.placeId === lock.placeId);
    if (lock.does === "forbid") return !blocks.some(isIt);
    return lock.projectId === undefined ? blocks.every(isIt) && blocks.length > 0 : blocks.some(isIt);
  });
}

/** What a plan in the making starts from. */
interface Start {
  readonly question: SeasonQuestion;
  readonly sum: string;
  /** The plan before, of this session. */
  readonly last: SeasonPlan | null;
  /** A plan that answers this question but for locks that it keeps anyhow. */
  readonly agreed: SeasonPlan | null;
}

function begin({ question, sum, last, agreed }: Start): SeasonRun {
  const listeners = new Set<(plan: SeasonPlan) => void>();
  let best: SeasonPlan | null = null;
  let before = seen;
  let previous = last;
  let settle: (plan: SeasonPlan) => void = () => undefined;
  let fail: (error: unknown) => void = () => undefined;
  const settled = new Promise<SeasonPlan>((resolve, reject) => ([settle, fail] = [resolve, reject]));
  const tell = (plan: SeasonPlan) => {
    best = plan;
    if (plan.stage === "settled" || plan.stage === "whole") settle(plan);
    for (const listener of listeners) listener(plan);
  };
  const work = async (): Promise<SeasonPlan> => {
    const stays = await shownLast();
    // What was shown is what its owner saw last.
    if (stays && !seen) before = seen = stays.plan;
    previous ??= stays?.plan ?? null;
    const known = agreed ?? (await keptPlan(sum).catch(() => null))?.plan ?? null;
    const isSame = known?.stage === "whole";
    if (isSame && !agreed) tell(known);
    const plan = await planSeasonInWorker(
      question,
      { before: isSame ? known : (last ?? stays?.plan ?? null), seen: stays?.plan ?? null, isSame },
      isSame ? () => undefined : tell,
    );
    if (!plan) {
      // A newer question took its place: its answer is the answer.
      const newer = run!.it;
      newer.settled.then(settle, fail);
      return newer.whole;
    }
    if (!isSame || agreed) tell(plan);
    settle(plan);
    if (plan.stage === "whole") {
      // What is planned while forecasts are still being asked anchors nothing.
      const isShown = !isProvisional();
      if (isShown) shown = Promise.resolve({ sum, plan });
      void leavePlan({ sum, plan }, isShown);
    }
    return plan;
  };
  const whole = work().catch((error: unknown) => {
    fail(error);
    run = null; // the next to ask begins anew
    throw error;
  });
  whole.catch(() => undefined);
  settled.catch(() => undefined);
  return {
    question,
    before: () => before,
    previous: () => previous,
    latest: () => best,
    listen: (onPlan) => {
      listeners.add(onPlan);
      return () => listeners.delete(onPlan);
    },
    settled,
    whole,
  };
}

const sumOf = (what: unknown): string => bytesToHex(sha256(utf8ToBytes(JSON.stringify(what))));

/**
 * The plan of the owner of a library: one for all screens, made anew when anything it is made from has changed. A question that was
 * answered before has the plan it had, so that undoing brings it back; one that differs only by locks which the plan keeps has that
 * plan; any other starts from the plan shown last, and stays with it where a change is not worth it.
 */
export function seasonRun(library: Library): SeasonRun {
  const question = seasonQuestion(library);
  if (run?.it.question === question) return run.it;
  const sum = sumOf(question);
  if (run?.sum === sum) return run.it;
  const butLocks = sumOf({ ...question, locks: [] });
  const last = run?.it.latest() ?? null;
  const isMore = run !== null && run.it.question.locks.every((l) => question.locks.some((x) => x.id === l.id));
  const agreed =
    run?.butLocks === butLocks && isMore && last?.stage === "whole" && keeps(last, question.locks) ? last : null;
  const it = begin({ question, sum, last, agreed });
  run = { sum, butLocks, it };
  return it;
}

/** A plan that came with a backup: it is the one that its owner saw last, unless this browser has one of its own. */
export async function takeShownPlan(raw: unknown): Promise<void> {
  const kept = readKeptPlan(raw);
  if (!kept || (await shownLast()) !== null) return;
  shown = Promise.resolve(kept);
  await leavePlan(kept, true);
}

/** The plan that its owner saw last, for their own backup; null where none was made. */
export const planForBackup = (): Promise<KeptPlan | null> => shownLast();

/** The plan that screens go by. */
export const seasonPlan = (library: Library): Promise<SeasonPlan> => seasonRun(library).settled;
