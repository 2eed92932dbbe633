import { proxy } from "comlink";
import type { Cover, PlacementFound, PlacementLimits, PlacementTask } from "~/core/framing";
import type { FrameApi } from "./frame.worker";
import { runJob } from "./job";

const worker = () => new Worker(new URL("./frame.worker.ts", import.meta.url), { type: "module" });

/** Looks for the best place of a mosaic off the main thread; cancels by `signal`. */
export const placeInWorker = (
  task: PlacementTask,
  limits: PlacementLimits,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<PlacementFound> =>
  runJob<FrameApi, PlacementFound>(worker(), signal, (api) => api.place(task, limits, proxy(onProgress)));

/** Smallest grids for outlines, off the main thread. */
export const coverInWorker = (
  at: {
    readonly outlines: Parameters<FrameApi["cover"]>[0];
    readonly size: Parameters<FrameApi["cover"]>[1];
    readonly fixedTurnDeg: number | null;
  },
  signal: AbortSignal,
): Promise<Cover[]> =>
  runJob<FrameApi, Cover[]>(worker(), signal, (api) => api.cover(at.outlines, at.size, at.fixedTurnDeg));
