import { expose } from "comlink";
import {
  buildSearchIndex,
  isCalled,
  searchCatalog,
  readTowns,
  searchTowns,
  nearestTown,
  unpackCatalog,
  type CatalogEntry,
  type PackedCatalog,
  type SearchIndex,
  type Town,
  type TownIndex,
} from "~/core/catalog";
import {
  clearChanceOn,
  placeNight,
  rankCatalog,
  targetJudge,
  ribbonNight,
  yearNights,
  yearOf,
  type MoonWishes,
  type OwnLight,
  type Place,
  type PlaceNight,
  type YearNight,
  type RankedTarget,
  type Ranking,
  type RibbonNight,
} from "~/core/night";
import { allShootAll, bestSplit, splitOdds, splitOf, type ChannelGoal, type CrewSite, type SiteNight, type Split, type SplitHours } from "~/core/crew"; // prettier-ignore
import type { Channel, Filter, Rig } from "~/core/exposure";
import { areaWhere, commonBox, coverageMap, depthSteps, type CoverageMap, type CoveringFrame, type DepthStep, type MosaicLayout, type PlaneBox } from "~/core/framing"; // prettier-ignore
import type { SharingWay } from "~/core/plan";
import { separationDeg, type Equatorial } from "~/core/sky";
import { addNights, type NightDate } from "~/core/time";
import { NIGHT_PERSISTENCE } from "~/core/weather";
import objectsUrl from "~/data/objects.json?url";
import townsUrl from "~/data/towns.tsv?url";

/** A ranked target with its catalogue entry. */
export type RankedEntry = RankedTarget & { readonly entry: CatalogEntry };

let loading: Promise<SearchIndex> | null = null;

async function load(): Promise<SearchIndex> {
  const response = await fetch(objectsUrl);
  if (!response.ok) throw new Error(`catalogue: ${response.status}`);
  const unpacked = unpackCatalog((await response.json()) as PackedCatalog);
  if (!unpacked.ok) throw new Error(`catalogue: ${unpacked.error.reason}`);
  return buildSearchIndex(unpacked.value);
}

/** The catalogue, fetched once; a failed fetch is tried again next time. */
function catalog(): Promise<SearchIndex> {
  loading ??= load().catch((error: unknown) => {
    loading = null;
    throw error;
  });
  return loading;
}

let loadingTowns: Promise<TownIndex> | null = null;

/** The gazetteer, fetched when first asked for. */
function towns(): Promise<TownIndex> {
  loadingTowns ??= fetch(townsUrl)
    .then(async (response) => {
      if (!response.ok) throw new Error(`gazetteer: ${response.status}`);
      return readTowns(await response.text());
    })
    .catch((error: unknown) => {
      loadingTowns = null;
      throw error;
    });
  return loadingTowns;
}

const YEAR_NIGHTS = 365;
let year: { readonly key: string; readonly nights: PlaceNight[] } | null = null;

/** The nights of a year over a place: kept, since every target asks for the same. */
function nightsOf(at: { readonly place: Place; readonly from: NightDate; readonly moon: MoonWishes }): PlaceNight[] {
  const key = JSON.stringify([at.place, at.from, at.moon]);
  if (year?.key !== key) year = { key, nights: yearNights(at.place, at.from, YEAR_NIGHTS, at.moon) };
  return year.nights;
}

/** For whom, where and when targets are judged. */
export interface RankQuestion {
  readonly place: Place;
  readonly date: NightDate;
  readonly moon: MoonWishes;
  readonly rig: Rig;
  readonly filters: readonly Filter[];
  /** Targets of one's own, judged like the listed ones. */
  readonly own: readonly CatalogEntry[];
}

/** What a month is best for. */
export interface BestOfMonth {
  readonly night: NightDate;
  readonly best: readonly { readonly entry: CatalogEntry; readonly usableMin: number; readonly channel: Channel }[];
}

/** A member's site as who-shoots-what is worked out for it. */
export interface SharingSite {
  readonly memberId: string;
  readonly place: Place;
  /** By channel: hours at the reference that an hour of worth 1 is; none where no filter of the rig records it. */
  readonly factors: Readonly<Partial<Record<Channel, number>>>;
  /** By what minutes there are weighed, by channel. */
  readonly own: Readonly<Partial<Record<Channel, OwnLight>>>;
  /** Hours promised; null = what the sky gives. */
  readonly promised: number | null;
}

/** A question of who shoots what. */
export interface SharingTask {
  readonly sites: readonly SharingSite[];
  readonly goals: readonly ChannelGoal[];
  readonly target: Equatorial<"icrs">;
  readonly moon: MoonWishes;
  readonly from: NightDate;
  readonly nights: number;
  readonly floor: number;
  readonly hand: SplitHours | null;
}

/** A way to share the work, what it comes to, and how likely it is done by then. */
export interface SharingOption {
  readonly way: SharingWay;
  readonly split: Split;
  readonly odds: number;
}

export interface Sharing {
  readonly sites: readonly (CrewSite & {
    /** Hours of clear nights in which the target can be shot, in all. */
    readonly skyHours: number;
  })[];
  readonly goals: readonly ChannelGoal[];
  /** Advantage is left out where a goal is nobody's, or the floor cannot be held. */
  readonly options: readonly SharingOption[];
}

const SHARING_RUNS = 2000;
const MOST_YEARS = 60;
const years = new Map<string, readonly YearNight[]>();

/** The nights of a year for a target in a channel; kept, since every change of a promise asks for them again. */
function yearFor(at: {
  readonly place: Place;
  readonly from: NightDate;
  readonly moon: MoonWishes;
  readonly target: Equatorial<"icrs">;
  readonly channel: Channel;
  readonly own?: OwnLight;
}): readonly YearNight[] {
  const key = JSON.stringify(at);
  const known = years.get(key) ?? yearOf(nightsOf(at), at.target, at.channel, at.own);
  years.delete(key);
  years.set(key, known);
  if (years.size > MOST_YEARS) years.delete(years.keys().next().value!);
  return known;
}

/** A site's clear hours, and what each is worth by channel: by the chance of each night to be clear. */
function siteOf({ memberId, place, factors, own, promised }: SharingSite, task: SharingTask) {
  const channels = Object.keys(factors) as Channel[];
  const all = channels.map((channel) => yearFor({ place, from: task.from, moon: task.moon, target: task.target, channel, ...(own[channel] ? { own: own[channel] } : {}) }).slice(0, task.nights)); // prettier-ignore
  const nights = Array.from({ length: task.nights }, (_, i): SiteNight => {
    const usable = Math.max(0, ...all.map((year) => year[i]?.usableMin ?? 0));
    return { chance: clearChanceOn(place, addNights(task.from, i)), hours: usable / 60 };
  });
  const skyHours = nights.reduce((sum, n) => sum + n.chance * n.hours, 0);
  const rates = Object.fromEntries(
    channels.map((channel, k) => {
      const worth = all[k]!.reduce((sum, n, i) => sum + nights[i]!.chance * n.worthMin, 0) / 60;
      return [channel, skyHours > 0 ? (worth * factors[channel]!) / skyHours : 0];
    }),
  ) as CrewSite["rates"];
  return { memberId, hours: promised ?? skyHours, skyHours, rates, nights };
}

/** What lies over what, in each of several channels, and which fields are to share a crop. */
export interface CoverageTask {
  readonly view: Pick<MosaicLayout, "centre" | "positionAngleDeg">;
  readonly layers: readonly {
    readonly channel: Channel;
    readonly frames: readonly CoveringFrame[];
    /** Hours that are wanted of every point. */
    readonly goalHours: number;
  }[];
  readonly fields: readonly (readonly CoveringFrame[])[];
}

/** Depth in one channel. */
export interface CoverageLayer {
  readonly channel: Channel;
  readonly map: CoverageMap;
  readonly steps: readonly DepthStep[];
  readonly goalHours: number;
  readonly areaDeg2: number;
  /** Of it, as deep as the goal. */
  readonly goalDeg2: number;
}

export interface Coverage {
  readonly layers: readonly CoverageLayer[];
  /** What all fields have in common, in the frame of the view. */
  readonly common: PlaneBox | null;
}

let judge: { readonly key: string; readonly of: ReturnType<typeof targetJudge> } | null = null;

/** The judge for a question; kept, since every keystroke of a search asks the same. */
function judgeOf(at: RankQuestion): ReturnType<typeof targetJudge> {
  const key = JSON.stringify([at.place, at.date, at.moon, at.rig, at.filters]);
  if (judge?.key !== key) judge = { key, of: targetJudge({ ...at, night: placeNight(at.place, at.date, at.moon) }) };
  return judge.of;
}

const api = {
  sharing(task: SharingTask): Sharing {
    const sites = task.sites.map((s) => siteOf(s, task));
    const { goals, floor, hand } = task;
    const best = bestSplit(sites, goals, floor);
    const splits: readonly { readonly way: SharingWay; readonly split: Split }[] = [
      ...(best ? [{ way: "advantage" as const, split: best }] : []),
      { way: "all", split: allShootAll(sites, goals) },
      ...(hand ? [{ way: "hand" as const, split: splitOf(sites, goals, hand) }] : []),
    ];
    const weather = { persistence: NIGHT_PERSISTENCE, runs: SHARING_RUNS, seed: 20 };
    return {
      sites: sites.map(({ nights: _, ...s }) => s),
      goals,
      options: splits.map((s) => ({ ...s, odds: splitOdds(s.split.hours, sites, goals, weather) })),
    };
  },
  coverage({ view, layers, fields }: CoverageTask): Coverage {
    const field = coverageMap(view, fields.flat());
    return {
      layers: layers.flatMap(({ channel, frames, goalHours }): CoverageLayer[] => {
        const map = coverageMap(view, frames);
        if (!map) return [];
        const goalDeg2 = goalHours > 0 ? areaWhere(map, (w) => w >= goalHours * 0.995) : 0;
        return [{ channel, map, steps: depthSteps(map, frames), goalHours, areaDeg2: areaWhere(map, (w) => w > 0), goalDeg2 }]; // prettier-ignore
      }),
      common: field && fields.length > 1 ? commonBox(field, fields) : null,
    };
  },
  async rank(at: RankQuestion): Promise<Ranking<RankedEntry>> {
    const { entries } = await catalog();
    const all = [...entries, ...at.own];
    const { ranked, tooLow } = rankCatalog(all, { ...at, night: placeNight(at.place, at.date, at.moon) });
    return { ranked: ranked.map((r) => ({ ...r, entry: all[r.row]! })), tooLow };
  },
  /** The best of the catalogue on the darkest night of a month, by the same order as the list of targets. */
  async bestIn(
    month: number,
    at: Omit<RankQuestion, "date"> & { readonly from: NightDate },
    limit: number,
  ): Promise<BestOfMonth> {
    const { entries } = await catalog();
    const nights = nightsOf(at).slice(month * 30, month * 30 + 30);
    const night = nights.reduce((a, b) => (b.sky.illuminatedFraction < a.sky.illuminatedFraction ? b : a));
    const { ranked } = rankCatalog(entries, { ...at, night });
    return {
      night: night.date,
      best: ranked.slice(0, limit).map((r) => ({ entry: entries[r.row]!, usableMin: r.usableMin, channel: r.channel })),
    };
  },
  async search(query: string, limit: number): Promise<CatalogEntry[]> {
    return searchCatalog(await catalog(), query, limit);
  },
  /** Targets by name, own ones first, judged as in a ranking; also those without a usable minute. */
  async find(query: string, limit: number, at: RankQuestion): Promise<RankedEntry[]> {
    const found = [
      ...searchCatalog(buildSearchIndex(at.own), query, limit),
      ...searchCatalog(await catalog(), query, limit),
    ];
    const judge = judgeOf(at);
    return found.flatMap((entry, row) => {
      const judged = judge(entry, row, true);
      return judged ? [{ ...judged, entry }] : [];
    });
  },
  async nearestTown(at: { readonly latitudeDeg: number; readonly longitudeDeg: number }): Promise<Town | null> {
    return nearestTown(await towns(), at);
  },
  async towns(query: string, limit: number): Promise<Town[]> {
    return searchTowns(await towns(), query, limit);
  },
  async entry(id: string): Promise<CatalogEntry | null> {
    const index = await catalog();
    return index.entries.find((e) => e.id === id) ?? searchCatalog(index, id, 5).find((e) => isCalled(e, id)) ?? null;
  },
  async within(at: { raDeg: number; decDeg: number; radiusDeg: number; limit: number }): Promise<CatalogEntry[]> {
    const { entries } = await catalog();
    const centre = { frame: "icrs", raDeg: at.raDeg, decDeg: at.decDeg } as const;
    const near = entries.filter(
      (e) => Math.abs(e.at.decDeg - at.decDeg) <= at.radiusDeg && separationDeg(centre, e.at) <= at.radiusDeg,
    );
    return near.slice(0, at.limit);
  },
  year(at: {
    place: Place;
    from: NightDate;
    moon: MoonWishes;
    target: Equatorial<"icrs">;
    channel: Channel;
    own?: OwnLight;
  }): YearNight[] {
    return yearOf(nightsOf(at), at.target, at.channel, at.own);
  },
  ribbon(at: { place: Place; from: NightDate; count: number }): RibbonNight[] {
    return Array.from({ length: at.count }, (_, i) => ribbonNight(at.place, addNights(at.from, i)));
  },
};

/** What this worker answers. */
export type SkyApi = typeof api;
expose(api);
