import { underSky, type Channel } from "~/core/exposure";
import { placeNight, targetNight, withMoon, type MoonWishes, type Place, type PlaceNight } from "~/core/night";
import { MINUTE_MS, nightsBetween, utcMs, weekdayOf, type NightDate, type UtcInterval, type UtcMs } from "~/core/time";
import type { Evening } from "./blocks";
import { lockedNight, type Lock } from "./locks";
import { RUN_ODDS, runOdds, runStanding, type RunStanding } from "./runs";
import { hasLeft } from "./wants";
import type { HourOdds, SeasonProject, SeasonRequest, SeasonRig } from "./request";

export type { HourOdds };

/** How a person goes about it. */
export interface PersonRules {
  readonly targetsANight: number;
  readonly minBlockMin: number;
  /** Hours a night at most; absent = as long as it is dark. */
  readonly mostHours?: number;
  /** Evenings of the week that are never free, 0 = Sunday. */
  readonly busyWeekdays: readonly number[];
  /** One rig at a time. */
  readonly isOneRig: boolean;
  /** Places one would drive to for what is shot at home, and from how many hours more on. */
  readonly drives?: readonly { readonly placeId: string; readonly fromHours: number }[];
}

/** Common practice, no source: one target a night, two at most; less than three quarters of an hour is not worth a move. */
export const USUAL_PERSON_RULES: PersonRules = {
  targetsANight: 2,
  minBlockMin: 45,
  busyWeekdays: [],
  isOneRig: false,
};

/** A place with what is known of its weather. */
export interface SeasonPlace {
  readonly id: string;
  readonly place: Place;
  /** Chance of a clear night, by night of the season: forecasts pooled, then the place's own. */
  readonly chances: readonly number[];
  /** The odds by the hour of nights that forecasts reach. */
  readonly hours: Readonly<Record<NightDate, readonly HourOdds[]>>;
  /** The stretch of such a night worth being out for. */
  readonly within: Readonly<Record<NightDate, UtcInterval>>;
}

/** All that a plan is made from, as plain data: the same question has the same answer. */
export interface SeasonQuestion {
  readonly from: NightDate;
  readonly nights: number;
  /** Nothing of the first night before this instant counts; null = all of it. */
  readonly fromMs: UtcMs | null;
  readonly places: readonly SeasonPlace[];
  readonly rigs: readonly SeasonRig[];
  readonly projects: readonly SeasonProject[];
  readonly rules: PersonRules;
  readonly locks: readonly Lock[];
  /** Nights spent elsewhere, with all rigs. */
  readonly trips: readonly { readonly night: NightDate; readonly placeId: string }[];
  /** Lag-1 correlation of clear nights. */
  readonly persistence: number;
  /** Whether the night before the first was clear; null = nobody knows. The chances know of it already. */
  readonly wasClear: boolean | null;
  /** The first night has begun: what its rigs were to do then, and from when on it is planned anew; null = it goes on as planned. */
  readonly begun?: {
    readonly fromMs: UtcMs | null;
    /** Until when what it had counts as taken, though nothing is written down yet: the needs know of it already. */
    readonly takenUntilMs?: UtcMs | null;
    readonly evenings: readonly Pick<Evening, "placeId" | "rigIds" | "blocks">[];
  };
  /** Everything that needs no stars is set up by daylight; absent = it is. */
  readonly standsBeforeDark?: boolean;
  /** Seasons played for the odds. */
  readonly runs: number;
}

/** Nights over places, kept from plan to plan: they are most of the work. */
export type NightStock = Map<string, PlaceNight>;

/** A night over a place from the stock: places are told apart by what they are, not by their names. */
export function nightFrom(stock: NightStock, place: Place, night: NightDate, moon: MoonWishes): PlaceNight {
  const key = `${JSON.stringify({ ...place, clearChance: [] })} ${night}`;
  const known = stock.get(key) ?? placeNight(place, night, moon);
  stock.set(key, known);
  return withMoon(known, moon);
}

/** What the question's places, evenings and locks make of a night. */
export function requestOf(question: SeasonQuestion, locks: readonly Lock[], stock: NightStock): SeasonRequest {
  const { projects, places, rules } = question;
  const placeOf = new Map(places.map((p) => [p.id, p]));
  const index = (night: NightDate) => nightsBetween(question.from, night);
  const locked = new Map([...new Set(locks.map((l) => l.night))].map((n) => [n, lockedNight(locks, n)]));
  const known = new Map<string, readonly number[]>();
  const runsOf = (placeId: string, run: number) => {
    const key = `${placeId} ${run}`;
    const place = placeOf.get(placeId);
    const share = known.get(key) ?? runOdds(place?.chances ?? [], run, question.persistence, question.wasClear).share;
    known.set(key, share);
    return share;
  };
  return {
    from: question.from,
    nights: question.nights,
    places: places.map(({ id, place }) => ({ id, place })),
    rigs: question.rigs,
    projects,
    targetsANight: rules.targetsANight,
    minBlockMin: rules.minBlockMin,
    isOneRig: rules.isOneRig,
    ...(rules.mostHours === undefined ? {} : { mostHours: rules.mostHours }),
    chanceOf: (placeId: string, night: NightDate) => placeOf.get(placeId)?.chances[index(night)] ?? 0,
    hoursOf: (placeId: string, night: NightDate) => placeOf.get(placeId)?.hours[night] ?? null,
    isFree: (night: NightDate) => !isBusy(rules, night, locks) && (locked.get(night)?.isOpen ?? true),
    mayShoot: (projectId: string, placeId: string, night: NightDate, channels: readonly Channel[]) => {
      const l = locked.get(night);
      if (!l) return true;
      return l.mayShoot(projectId, placeId, channels);
    },
    runShare: (project: SeasonProject, placeId: string, night: NightDate) => {
      const share = runsOf(placeId, project.clearRun ?? 1)[index(night)] ?? 0;
      const isForecast = placeOf.get(placeId)?.hours[night] !== undefined;
      // As far as forecasts reach a night is taken or it waits; beyond, it counts as often as it will be one of a run.
      return index(night) === 0 || isForecast ? (share >= RUN_ODDS ? 1 : 0) : share;
    },
    drives: drivesOf(question),
    standsAt: (placeId: string, night: NightDate) => {
      const there = question.trips.find((t) => t.night === night)?.placeId ?? placeId;
      return placeOf.has(there) ? there : placeId;
    },
    within: (placeId: string, night: NightDate) => {
      const within = placeOf.get(placeId)?.within[night];
      if (question.fromMs === null || night !== question.from) return within ?? null;
      return { ...within, startMs: utcMs(Math.max(question.fromMs, within?.startMs ?? 0)) };
    },
    nightOver: (placeId: string, night: NightDate, moon: MoonWishes) =>
      nightFrom(stock, placeOf.get(placeId)!.place, night, moon),
  };
}

/** How a project that wants clear nights in a row stands tonight; null where it wants none. */
export function runStandingOf(question: SeasonQuestion, projectId: string): RunStanding | null {
  const project = question.projects.find((p) => p.id === projectId);
  const place = question.places.find((p) => p.id === project?.placeId);
  if (project?.clearRun === undefined || !place || !project.wants.some(hasLeft)) return null;
  return runStanding(question.from, place.chances, project.clearRun, question.persistence, question.wasClear);
}

/** Places that rigs are taken to: those one would drive to, and those that some channels are bound to. */
export const drivesOf = ({ rules, projects, places }: SeasonQuestion): string[] =>
  [
    ...new Set([
      ...(rules.drives ?? []).map((d) => d.placeId),
      ...projects.flatMap((p) => p.wants.flatMap((w) => w.onlyAt ?? [])),
    ]),
  ].filter((id) => places.some((p) => p.id === id));

/** An evening of the week that is never free, unless something was fixed on it by hand. */
export const isBusy = (rules: PersonRules, night: NightDate, locks: readonly Lock[]): boolean =>
  rules.busyWeekdays.includes(weekdayOf(night)) && !locks.some((l) => l.night === night && l.does === "fix");

/** The channels of a project that a night has a block for, locks and weather aside. */
export function usableChannels(
  question: SeasonQuestion,
  projectId: string,
  night: NightDate,
  stock: NightStock,
): Channel[] {
  const project = question.projects.find((p) => p.id === projectId);
  if (!project || (project.deadline !== undefined && night > project.deadline)) return [];
  const leastMin = project.leastMin ?? question.rules.minBlockMin;
  const home = question.places.find((p) => p.id === project.placeId)?.place.skyMagPerArcsec2;
  const usable = [project.placeId, ...drivesOf(question)].flatMap((placeId) => {
    const place = question.places.find((p) => p.id === placeId)?.place;
    if (!place) return [];
    const over = nightFrom(stock, place, night, project.moon);
    return project.wants.filter(
      ({ channel, remainingMin, onlyAt, own }) =>
        hasLeft({ remainingMin }) &&
        (onlyAt === undefined || onlyAt === placeId) &&
        targetNight(
          over,
          project.target,
          channel,
          own && home !== undefined ? underSky(own, home, place.skyMagPerArcsec2) : undefined,
        ).windows.some((w) => (w.endMs - w.startMs) / MINUTE_MS >= leastMin),
    );
  });
  return [...new Set(usable.map((w) => w.channel))];
}
