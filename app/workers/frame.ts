import { proxy } from "comlink";
import type { Cover, PlacementFound, PlacementLimits, PlacementTask } from "~/core/framing";
import { runJob } from "./client";
import type { FrameApi } from "./frame.worker";

/** Long work on frames, off the main thread; every call is cancelled by its signal. */
export interface FrameClient {
  /** Looks for the best place of a mosaic. */
  readonly place: (
    task: PlacementTask,
    limits: PlacementLimits,
    signal: AbortSignal,
    onProgress: (share: number) => void,
  ) => Promise<PlacementFound>;
  /** Smallest grids for outlines. */
  readonly cover: (
    at: {
      readonly outlines: Parameters<FrameApi["cover"]>[0];
      readonly size: Parameters<FrameApi["cover"]>[1];
      readonly fixedTurnDeg: number | null;
    },
    signal: AbortSignal,
  ) => Promise<Cover[]>;
}

/** Every piece of work in a worker of its own. */
export function createFrameClient(): FrameClient {
  const start = () => new Worker(new URL("./frame.worker.ts", import.meta.url), { type: "module" });
  return {
    place: (task, limits, signal, onProgress) =>
      runJob<FrameApi, PlacementFound>(start(), signal, (api) => api.place(task, limits, proxy(onProgress))),
    cover: (at, signal) =>
      runJob<FrameApi, Cover[]>(start(), signal, (api) => api.cover(at.outlines, at.size, at.fixedTurnDeg)),
  };
}
