import { wrap, type Remote } from "comlink";
import type { Place, Ranking, RibbonNight } from "~/core/night";
import type { NightDate } from "~/core/time";
import type { RankedEntry, RankQuestion, SkyApi } from "./sky.worker";
export type { Sharing, SharingSite } from "./sky.worker";
export type { Coverage, CoverageLayer } from "./sky.worker";
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
/** Asks anew when the question changes, or when the last answer was a failure; else answers from memory. */
export function rememberingLast<Q, T>(ask: (question: Q) => Promise<T>): (question: Q) => Promise<T> {
  let last: { readonly key: string; readonly answer: Promise<T> } | null = null;
  return (question) => {
    const key = JSON.stringify(question);
    if (last?.key === key) return last.answer;
    const mine = { key, answer: ask(question) };
    last = mine;
    mine.answer.catch(() => {
      if (last === mine) last = null;
    });
    return mine.answer;
  };
}

/** The nights of the ribbon. */
export const ribbonOf = rememberingLast(
  (at: { readonly place: Place; readonly from: NightDate; readonly count: number }): Promise<RibbonNight[]> =>
    skyWorker().ribbon(at),
);

/** The ranking of the catalogue, by night, place, rig and own targets. */
export const rankingOf = rememberingLast((question: RankQuestion): Promise<Ranking<RankedEntry>> =>
  skyWorker().rank(question),
);
