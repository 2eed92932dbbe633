import { client, rememberingLast } from "./client";
import type { SkyApi } from "./sky.worker";

export type { BestOfMonth } from "./sky-year";
export type { Sharing, SharingSite } from "./sky-sharing";
export type { Coverage, CoverageLayer, RankedEntry, RankQuestion } from "./sky.worker";

/** Answers questions about the sky and the catalogue, off the main thread. */
export type SkyClient = {
  readonly [K in keyof SkyApi]: (...question: Parameters<SkyApi[K]>) => Promise<Awaited<ReturnType<SkyApi[K]>>>;
};

/** The one worker that holds the catalogue. Its last ranking and its last ribbon are answered from memory. */
export function createSkyClient(): SkyClient {
  const worker = client<SkyApi>(() => new Worker(new URL("./sky.worker.ts", import.meta.url), { type: "module" }));
  return {
    sharing: (...q) => worker.ask((sky) => sky.sharing(...q)),
    coverage: (...q) => worker.ask((sky) => sky.coverage(...q)),
    rank: rememberingLast((q) => worker.ask((sky) => sky.rank(q))),
    bestIn: (...q) => worker.ask((sky) => sky.bestIn(...q)),
    search: (...q) => worker.ask((sky) => sky.search(...q)),
    find: (...q) => worker.ask((sky) => sky.find(...q)),
    nearestTown: (...q) => worker.ask((sky) => sky.nearestTown(...q)),
    towns: (...q) => worker.ask((sky) => sky.towns(...q)),
    entry: (...q) => worker.ask((sky) => sky.entry(...q)),
    within: (...q) => worker.ask((sky) => sky.within(...q)),
    year: (...q) => worker.ask((sky) => sky.year(...q)),
    ribbon: rememberingLast((q) => worker.ask((sky) => sky.ribbon(q))),
  };
}
