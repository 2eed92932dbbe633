import { afterEach, expect, it, vi } from "vitest";

/** A worker that never answers and can be made to fail. */
class DeafWorker extends EventTarget {
  static readonly all: DeafWorker[] = [];
  constructor() {
    super();
    DeafWorker.all.push(this);
  }
  postMessage() {
    return undefined;
  }
}
afterEach(() => vi.unstubAllGlobals());

it("a sky worker that does not load refuses every question asked of it, and the next question starts another", async () => {
  vi.stubGlobal("Worker", DeafWorker);
  vi.resetModules();
  const { skyWorker } = await import("./sky");
  const questions = [skyWorker().search("m81", 5), skyWorker().entry("M 81")];
  const settled = Promise.allSettled(questions);
  DeafWorker.all[0]!.dispatchEvent(Object.assign(new Event("error"), { message: "404" }));
  expect((await settled).map((s) => (s.status === "rejected" ? (s.reason as Error).message : "answered"))).toEqual(["404", "404"]); // prettier-ignore
  void skyWorker();
  expect(DeafWorker.all).toHaveLength(2);
});
