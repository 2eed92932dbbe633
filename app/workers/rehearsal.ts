import { proxy } from "comlink";
import type { CatalogEntry } from "~/core/catalog";
import type { Judged, Played, Prepared, RehearsalNight, WayRecord } from "~/core/rehearsal";
import { client, runJob } from "./client";
import type { PlayedAs, RehearsalApi } from "./rehearsal.worker";

export type { PlayedAs } from "./rehearsal.worker";

/** Plays nights and makes their frames, off the main thread. */
export interface RehearsalClient {
  readonly prepared: (which: Prepared, target: CatalogEntry) => Promise<RehearsalNight>;
  /** As far as the next decision. */
  readonly play: (at: PlayedAs) => Promise<Played>;
  /** Decision by decision, each told as it is found; cancelled by its signal. */
  readonly judge: (at: PlayedAs, signal: AbortSignal, onJudged: (judged: Judged) => void) => Promise<void>;
  /** How ways under cloud do over several nights; null where none had cloud. */
  readonly seeds: (
    night: RehearsalNight,
    seeds: readonly number[],
    signal: AbortSignal,
  ) => Promise<{ readonly nights: number; readonly ways: readonly WayRecord[] } | null>;
  /** Frames into a folder of this origin's own file system: how many. */
  readonly write: (
    at: PlayedAs,
    folder: string,
    cropPx: number | null,
    signal: AbortSignal,
    onFile: (done: number, of: number) => void,
  ) => Promise<number>;
  /** Frames as one zip, with darks, bias and flats if asked. */
  readonly zip: (
    at: PlayedAs,
    cropPx: number | null,
    isCalibrated: boolean,
    signal: AbortSignal,
    onFile: (done: number, of: number) => void,
  ) => Promise<Blob>;
}

/** One worker plays; every long piece of work has one of its own. */
export function createRehearsalClient(): RehearsalClient {
  const start = () => new Worker(new URL("./rehearsal.worker.ts", import.meta.url), { type: "module" });
  const player = client<RehearsalApi>(start);
  return {
    prepared: (which, target) => player.ask((api) => api.prepared(which, target)),
    play: (at) => player.ask((api) => api.play(at)),
    judge: (at, signal, onJudged) =>
      runJob<RehearsalApi, void>(start(), signal, (api) => api.judge(at, proxy(onJudged))),
    seeds: (night, seeds, signal) =>
      runJob<RehearsalApi, Awaited<ReturnType<RehearsalClient["seeds"]>>>(start(), signal, (api) =>
        api.seeds(night, seeds),
      ),
    write: (at, folder, cropPx, signal, onFile) =>
      runJob<RehearsalApi, number>(start(), signal, (api) => api.write(at, folder, cropPx, proxy(onFile))),
    zip: (at, cropPx, isCalibrated, signal, onFile) =>
      runJob<RehearsalApi, Blob>(start(), signal, (api) => api.zip(at, cropPx, isCalibrated, proxy(onFile))),
  };
}
