import { wrap, type Remote } from "comlink";
import type { Place, Ranking, RibbonNight } from "~/core/night";
import type { NightDate } from "~/core/time";
import type { RankedEntry, RankQuestion, SkyApi } from "./sky.worker";

export type { Sharing, SharingOption, SharingSite } from "./sky.worker";
export type { Coverage, CoverageLayer, CoverageTask } from "./sky.worker";
export type { BestOfMonth, RankedEntry, RankQuestion } from "./sky.worker";

let shared: Remote<SkyApi> | null = null;

/** Calls that also fail when the worker does: one that does not load never answers, and nobody should wait for ever. */
function guarded(worker: Worker): Remote<SkyApi> {
  const failed = new Promise<never>((_, reject) =>
    worker.addEventListener("error", ({ message }) => {
      shared = null; // the next question starts another one
      reject(new Error(message || "the sky worker did not load"));
    }),
  );
  failed.catch(() => undefined); // told to whoever has asked
  const remote = wrap<SkyApi>(worker);
  return new Proxy(remote, {
    get(target, name) {
      const ask: unknown = Reflect.get(target, name);
      return typeof ask === "function"
        ? (...question: readonly unknown[]) =>
            Promise.race([Reflect.apply(ask, target, question) as Promise<unknown>, failed])
        : ask;
    },
  });
}

/** The one worker that holds the catalogue and answers questions about the sky. Call it in the browser only. */
export function skyWorker(): Remote<SkyApi> {
  shared ??= guarded(new Worker(new URL("./sky.worker.ts", import.meta.url), { type: "module" }));
  return shared;
}

/** Waits for a worker's answer, or rejects at once when the signal aborts; the answer is then dropped. */
export function orAborted<T>(answer: Promise<T>, signal: AbortSignal): Promise<T> {
  signal.throwIfAborted();
  return new Promise((resolve, reject) => {
    const stop = () => reject(signal.reason as Error);
    signal.addEventListener("abort", stop, { once: true });
    // One signal may see many answers: each leaves it as it was.
    answer.then(resolve, reject).finally(() => signal.removeEventListener("abort", stop));
  });
}

let lastRibbon: { readonly key: string; readonly nights: Promise<RibbonNight[]> } | null = null;

/** The nights of the ribbon; asked again for the same place and date it answers from memory. */
export function ribbonOf(at: {
  readonly place: Place;
  readonly from: NightDate;
  readonly count: number;
}): Promise<RibbonNight[]> {
  const key = JSON.stringify(at);
  if (lastRibbon?.key !== key) lastRibbon = { key, nights: skyWorker().ribbon(at) };
  return lastRibbon.nights;
}

let lastRanking: { readonly key: string; readonly ranking: Promise<Ranking<RankedEntry>> } | null = null;

/** The ranking of the catalogue; asked again for the same night, place, rig and own targets it answers from memory. */
export function rankingOf(question: RankQuestion): Promise<Ranking<RankedEntry>> {
  const key = JSON.stringify(question);
  if (lastRanking?.key !== key) {
    const ranking = skyWorker().rank(question);
    lastRanking = { key, ranking };
    ranking.catch(() => {
      if (lastRanking?.ranking === ranking) lastRanking = null; // asked anew next time
    });
  }
  return lastRanking.ranking;
}
