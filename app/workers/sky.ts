import type { CatalogEntry } from "~/core/catalog";
import type { RankedTarget, Ranking } from "~/core/night";
import { client, inParts, rememberingLast } from "./client";
import type { RankedEntry, RankQuestion, SkyApi } from "./sky.worker";

export type { BestOfMonth } from "./sky-year";
export type { Sharing, SharingSite } from "./sky-sharing";
export type { Coverage, CoverageLayer, RankedEntry, RankQuestion } from "./sky.worker";

type Asked = Omit<SkyApi, "rank" | "all">;

/** Answers questions about the sky and the catalogue, off the main thread. */
export type SkyClient = {
  readonly [K in keyof Asked]: (...question: Parameters<Asked[K]>) => Promise<Awaited<ReturnType<Asked[K]>>>;
} & {
  /** The catalogue and one's own targets, the best first. */
  readonly rank: (question: RankQuestion) => Promise<Ranking<RankedEntry>>;
};

/** The one worker that holds the catalogue. Its last ranking and its last ribbon are answered from memory. */
export function createSkyClient(): SkyClient {
  const worker = client<SkyApi>(() => new Worker(new URL("./sky.worker.ts", import.meta.url), { type: "module" }));
  let known: Promise<readonly CatalogEntry[]> | null = null;
  /** The catalogue on this side, handed over once; a failed try is tried again next time. */
  const entries = (): Promise<readonly CatalogEntry[]> => {
    known ??= inParts<CatalogEntry, { readonly count: number }>((onPart) => worker.ask((sky) => sky.all(onPart))).then(
      ({ list }) => list,
    );
    known.catch(() => (known = null));
    return known;
  };
  const rank = async (question: RankQuestion): Promise<Ranking<RankedEntry>> => {
    const asked = inParts<RankedTarget, { readonly count: number; readonly tooLow: number }>((onPart) =>
      worker.ask((sky) => sky.rank(question, onPart)),
    );
    const [listed, { list, done }] = await Promise.all([entries(), asked]);
    const all = [...listed, ...question.own];
    return { ranked: list.map((r) => Object.assign(r, { entry: all[r.row]! })), tooLow: done.tooLow };
  };
  return {
    sharing: (...q) => worker.ask((sky) => sky.sharing(...q)),
    coverage: (...q) => worker.ask((sky) => sky.coverage(...q)),
    rank: rememberingLast(rank),
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
