import type { Channel } from "~/core/exposure";
import { bestRate, clearChanceOn, type Place } from "~/core/night";
import { nightOutcomes } from "~/core/ledger";
import {
  URGENCIES,
  lessTaken,
  replannedFrom,
  takenUntil,
  hoursOf,
  outWindow,
  type BegunData,
  type NightAct,
  type Need,
} from "~/core/plan";
import {
  USUAL_PERSON_RULES,
  weightOf,
  type HourOdds,
  type Lock,
  type PersonRules,
  type SeasonPlace,
  type SeasonProject,
  type SeasonQuestion,
} from "~/core/season";
import { NIGHT_PERSISTENCE, USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import { nightOf } from "~/core/sky";
import { addNights, nightDate, type NightDate, type UtcInterval, type UtcMs } from "~/core/time";
import { choiceOf, moonOf } from "~/desk/sky/choice";
import { instantOfRev } from "~/core/crew";
import { withLearntChances } from "~/desk/sky/learnt";
import type { Entity, Library } from "~/desk/records/library";
import { nightOver } from "~/desk/sky/nights";
import { meOf } from "~/desk/records/parts";
import { contextOf, isAtRest, ownContextsOf, type ProjectContext } from "~/desk/projects/project";
import { inTurns } from "~/desk/turns";
import { topic } from "~/desk/memo";
import { weatherKept } from "~/desk/sky/weather";

/** Nights planned: half a year, the season of what is up now. */
export const SEASON_NIGHTS = 180;
/** Nights from tonight on that forecasts are asked for. */
export const FORECAST_NIGHTS = 3;
const RUNS = 300; // the odds are known to three points; each night of each is planned anew

/** How nights are planned for the owner of a library. */
export const rulesOf = (library: Library): PersonRules => library.settings?.data.planning ?? USUAL_PERSON_RULES;

/** By what a want's minutes are weighed, and what one is worth at the target's best. */
function lightOf(c: ProjectContext, channel: Channel) {
  const own = c.own[channel];
  const best = c.bestRates[channel] ?? bestRate(c.place.data, c.layout.centre, channel, own);
  return { bestRate: best, ...(own ? { own } : {}) };
}

/** A project as the season takes it: what is left of its channels, panels of one channel together. */
function seasonProject(c: ProjectContext, needs: readonly Need[] = c.needs): SeasonProject {
  const wants = new Map<string, Omit<Need, "panel"> & { goalMin: number; remainingMin: number }>();
  for (const { panel: _, goalMin, remainingMin, ...of } of needs) {
    const key = `${of.channel} ${of.subSec}`;
    const sum = wants.get(key) ?? { ...of, goalMin: 0, remainingMin: 0 };
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
    priority: weightOf(
      URGENCIES[urgency],
      rules.isToFinish ?? false,
      goalMin,
      sum((w) => w.remainingMin),
    ),
    counts: c.hours,
    ...(c.panels.length > 1 ? { pointings: c.panels.length } : {}),
    shot: {
      panels: c.panels.map(({ number, centre }) => ({ number, centre })),
      needs,
      own: c.own,
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
      ...lightOf(c, w.channel),
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
  own: readonly ProjectContext[] = ownContextsOf(library),
): { readonly hours: readonly HourOdds[]; readonly within: UtcInterval | null } | null {
  const { steps } = nightOver(library.desk, place.data, night, moonOf(library));
  const { hours } = weatherKept(library, place, night, hoursOf(steps));
  if (hours.every((h) => h.basis === "longTerm")) return null;
  const limits = own.flatMap((c) => (c.place.id === place.id ? (c.rig.data.gustLimitKmh ?? []) : []));
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

/** Places that the season knows: of the projects, and those that one may drive to. */
function placesOf(library: Library, own: readonly ProjectContext[]): readonly Entity<Place>[] {
  const bound = new Set(own.flatMap((c) => Object.values(c.part.data.onlyAt ?? {})));
  const driven = library.places.filter(
    (p) => bound.has(p.id) || rulesOf(library).drives?.some((d) => d.placeId === p.id),
  );
  return [...new Map([...own.map((c) => c.place), ...driven].map((p) => [p.id, p])).values()];
}

/** Works out in turns what the question is put together from, so that asking for it holds up no page. */
export async function readyQuestion(library: Library): Promise<void> {
  const turn = inTurns();
  const own: ProjectContext[] = [];
  for (const { id } of library.projects) {
    const c = contextOf(library, id);
    if (c?.part.isMine && !isAtRest(c)) own.push(c);
    await turn();
  }
  for (const c of own) {
    seasonProject(c);
    await turn();
  }
  const { today } = choiceOf(library, new URLSearchParams());
  for (const place of placesOf(library, own))
    for (let n = 0; n < FORECAST_NIGHTS; n++) {
      forecastOf(library, withLearntChances(library, place), addNights(today, n), own);
      await turn();
    }
}

const locksOf = topic<readonly Lock[]>(4);
const questions = topic<SeasonQuestion>(4);

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
  return library.desk.memo(questions, "season", parts, () => {
    const places = placesOf(library, contexts);
    const locks = library.desk.memo(locksOf, "locks", [library.locks, me, ...contexts.map((c) => c.id)], () =>
      library.locks
        .filter((l) => l.data.memberId === me)
        .filter((l) => l.data.projectId === undefined || contexts.some((c) => c.id === l.data.projectId))
        .map((l) => ({ id: l.id, ...l.data })),
    );
    const begun = begunOn(library, today);
    const looked = lookedAt(library, places, today);
    const acts = actsOf(library, places, today);
    const fromMs = begun ? replannedFrom(begun.atMs, acts) : looked;
    const taken = begun ? takenUntil(begun.atMs, acts) : null;
    return {
      from: today,
      nights: SEASON_NIGHTS,
      fromMs,
      ...(begun ? { begun: { fromMs, takenUntilMs: taken, evenings: begun.evenings } } : {}),
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
      projects: contexts.map((c) =>
        seasonProject(c, begun && taken !== null ? lessTaken(c.needs, c.id, begun.evenings, taken) : c.needs),
      ),
      rules: rulesOf(library),
      locks,
      trips: [],
      persistence: NIGHT_PERSISTENCE,
      wasClear: places[0] ? lastNight(library, places[0], today) : null,
      runs: RUNS,
    };
  });
}
