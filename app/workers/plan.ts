import { proxy } from "comlink";
import { runJob } from "./job";
import type { PlanAnswer, PlanApi, PlanRequest } from "./plan.worker";

export type { PlanAnswer, PlanRequest } from "./plan.worker";

/** Plans off the main thread; cancels by `signal`. */
export const planInWorker = (
  request: PlanRequest,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<PlanAnswer> =>
  runJob<PlanApi, PlanAnswer>(
    new Worker(new URL("./plan.worker.ts", import.meta.url), { type: "module" }),
    signal,
    (api) => api.plan(request, proxy(onProgress)),
  );
