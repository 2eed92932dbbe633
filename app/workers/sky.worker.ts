import { expose } from "comlink";
import {
  buildSearchIndex,
  searchCatalog,
  readTowns,
  searchTowns,
  unpackCatalog,
  type CatalogEntry,
  type PackedCatalog,
  type SearchIndex,
  type Town,
  type TownIndex,
} from "~/core/catalog";
import {
  placeNight,
  rankCatalog,
  targetJudge,
  ribbonNight,
  yearNights,
  yearOf,
  type MoonWishes,
  type Place,
  type PlaceNight,
  type YearNight,
  type RankedTarget,
  type Ranking,
  type RibbonNight,
} from "~/core/night";
import type { Channel, Rig } from "~/core/exposure";
import { separationDeg, type Equatorial } from "~/core/sky";
import { addNights, type NightDate } from "~/core/time";
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
  readonly channels: readonly Channel[];
  /** Targets of one's own, judged like the listed ones. */
  readonly own: readonly CatalogEntry[];
}

/** What a month is best for. */
export interface BestOfMonth {
  readonly night: NightDate;
  readonly best: readonly { readonly entry: CatalogEntry; readonly usableMin: number; readonly channel: Channel }[];
}

let judge: { readonly key: string; readonly of: ReturnType<typeof targetJudge> } | null = null;

/** The judge for a question; kept, since every keystroke of a search asks the same. */
function judgeOf(at: RankQuestion): ReturnType<typeof targetJudge> {
  const key = JSON.stringify([at.place, at.date, at.moon, at.rig, at.channels]);
  if (judge?.key !== key) judge = { key, of: targetJudge({ ...at, night: placeNight(at.place, at.date, at.moon) }) };
  return judge.of;
}

const api = {
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
  async towns(query: string, limit: number): Promise<Town[]> {
    return searchTowns(await towns(), query, limit);
  },
  async entry(id: string): Promise<CatalogEntry | null> {
    const index = await catalog();
    return index.entries.find((e) => e.id === id) ?? searchCatalog(index, id, 1)[0] ?? null;
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
  }): YearNight[] {
    return yearOf(nightsOf(at), at.target, at.channel);
  },
  ribbon(at: { place: Place; from: NightDate; count: number }): RibbonNight[] {
    return Array.from({ length: at.count }, (_, i) => ribbonNight(at.place, addNights(at.from, i)));
  },
};

/** What this worker answers. */
export type SkyApi = typeof api;
expose(api);
