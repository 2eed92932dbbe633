import { expose } from "comlink";
import {
  buildSearchIndex,
  searchCatalog,
  unpackCatalog,
  type CatalogEntry,
  type PackedCatalog,
  type SearchIndex,
} from "~/core/catalog";
import {
  nightSteps,
  placeSky,
  rankCatalog,
  ribbonNight,
  yearOf,
  yearSkies,
  type YearNight,
  type YearSky,
  type Place,
  type RankedTarget,
  type RibbonNight,
} from "~/core/night";
import type { Channel } from "~/core/exposure";
import { separationDeg, type Equatorial } from "~/core/sky";
import { addNights, type NightDate } from "~/core/time";
import objectsUrl from "~/data/objects.json?url";

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

const YEAR_NIGHTS = 365;
let year: { readonly key: string; readonly skies: YearSky[] } | null = null;

/** Sun and Moon of a year over a place: kept, since every target asks for the same. */
function skiesOf(place: Place, from: NightDate): YearSky[] {
  const key = [place.latitudeDeg, place.longitudeDeg, place.elevationM, place.timeZone, from].join();
  if (year?.key !== key) year = { key, skies: yearSkies(place, from, YEAR_NIGHTS) };
  return year.skies;
}

const api = {
  async rank(at: {
    place: Place;
    date: NightDate;
    frameShortArcmin: number;
    channels: readonly Channel[];
  }): Promise<RankedEntry[]> {
    const { entries } = await catalog();
    const sky = placeSky(at.place, at.date);
    const ranked = rankCatalog(entries, { ...at, sky, steps: nightSteps(sky, 5) });
    return ranked.map((r) => ({ ...r, entry: entries[r.row]! }));
  },
  async search(query: string, limit: number): Promise<CatalogEntry[]> {
    return searchCatalog(await catalog(), query, limit);
  },
  async entry(id: string): Promise<CatalogEntry | null> {
    const index = await catalog();
    return index.entries.find((e) => e.id === id) ?? searchCatalog(index, id, 1)[0] ?? null;
  },
  async within(at: { raDeg: number; decDeg: number; radiusDeg: number; limit: number }): Promise<CatalogEntry[]> {
    const { entries } = await catalog();
    const centre = { frame: "icrs", raDeg: at.raDeg, decDeg: at.decDeg } as const;
    const near = entries.filter(
      (e) =>
        Math.abs(e.decDeg - at.decDeg) <= at.radiusDeg &&
        separationDeg(centre, { frame: "icrs", raDeg: e.raDeg, decDeg: e.decDeg }) <= at.radiusDeg,
    );
    return near.slice(0, at.limit);
  },
  year(at: { place: Place; from: NightDate; target: Equatorial<"icrs">; channel: Channel }): YearNight[] {
    return yearOf(at.place, skiesOf(at.place, at.from), at.target, at.channel);
  },
  ribbon(at: { place: Place; from: NightDate; count: number }): RibbonNight[] {
    return Array.from({ length: at.count }, (_, i) => ribbonNight(at.place, addNights(at.from, i)));
  },
};

/** What this worker answers. */
export type SkyApi = typeof api;
expose(api);
