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
  placeNight,
  rankCatalog,
  targetJudge,
  ribbonNight,
  yearOf,
  type MoonWishes,
  type OwnLight,
  type Place,
  type YearNight,
  type RankedTarget,
  type RibbonNight,
} from "~/core/night";
import { allShootAll, bestSplit, splitOdds, splitOf, type Split } from "~/core/crew";
import type { Channel, Filter, Rig } from "~/core/exposure";
import {
  areaWhere,
  commonBox,
  coverageMap,
  depthSteps,
  type CoverageMap,
  type CoveringFrame,
  type DepthStep,
  type MosaicLayout,
  type PlaneBox,
} from "~/core/framing";
import type { SharingWay } from "~/core/plan";
import { separationDeg, type Equatorial } from "~/core/sky";
import { addNights, type NightDate } from "~/core/time";
import { NIGHT_PERSISTENCE } from "~/core/weather";
import objectsUrl from "~/data/objects.json?url";
import townsUrl from "~/data/towns.tsv?url";
import { nightsOf, type BestOfMonth } from "./sky-year";
import { type SharingTask, type Sharing, siteOf, SHARING_RUNS } from "./sky-sharing";

/** A ranked target with its catalogue entry. */
export type RankedEntry = RankedTarget & { readonly entry: CatalogEntry };

const PART = 600; // of a long list in one message, so that none is long to take in; a guess

/** Hands a long list over in parts; how many there are. */
function handOver<T>(list: readonly T[], onPart: (part: readonly T[]) => void): number {
  for (let i = 0; i < list.length; i += PART) onPart(list.slice(i, i + PART));
  return list.length;
}

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
  /** What the picture is to fill: the reference field, or what is cut out of it. */
  readonly wanted: readonly CoveringFrame[];
}

/** Depth in one channel. */
export interface CoverageLayer {
  readonly channel: Channel;
  readonly map: CoverageMap;
  readonly steps: readonly DepthStep[];
  readonly goalHours: number;
  /** What the picture is to fill, square degrees. */
  readonly wantedDeg2: number;
  /** Of it, with anything at all. */
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
  coverage({ view, layers, fields, wanted }: CoverageTask): Coverage {
    const field = coverageMap(view, fields.flat());
    return {
      layers: layers.flatMap(({ channel, frames, goalHours }): CoverageLayer[] => {
        // The map holds the wanted field too, where nothing was taken of it.
        const empty = wanted.map((f) => ({ ...f, weight: 0 }));
        const map = frames.length === 0 ? null : coverageMap(view, [...frames, ...empty]);
        if (!map) return [];
        const area = (is: (hours: number) => boolean) => areaWhere(map, is, wanted);
        return [
          {
            channel,
            map,
            steps: depthSteps(map, frames, wanted),
            goalHours,
            wantedDeg2: area(() => true),
            areaDeg2: area((w) => w > 0),
            goalDeg2: goalHours > 0 ? area((w) => w >= goalHours * 0.995) : 0,
          },
        ];
      }),
      common: field && fields.length > 1 ? commonBox(field, fields) : null,
    };
  },
  /** The whole catalogue, in parts. */
  async all(onPart: (part: readonly CatalogEntry[]) => void): Promise<{ readonly count: number }> {
    return { count: handOver((await catalog()).entries, onPart) };
  },
  /** The catalogue and one's own targets behind it, ranked; rows in parts. */
  async rank(
    at: RankQuestion,
    onPart: (part: readonly RankedTarget[]) => void,
  ): Promise<{ readonly count: number; readonly tooLow: number }> {
    const all = [...(await catalog()).entries, ...at.own];
    const { ranked, tooLow } = rankCatalog(all, { ...at, night: placeNight(at.place, at.date, at.moon) });
    return { count: handOver(ranked, onPart), tooLow };
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
