import { afterEach, describe, expect, it, vi } from "vitest";
import { rememberingLast } from "./client";
import { createSkyClient } from "./sky";

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
  const sky = createSkyClient();
  const questions = [sky.search("m81", 5), sky.entry("M 81")];
  const settled = Promise.allSettled(questions);
  DeafWorker.all[0]!.dispatchEvent(Object.assign(new Event("error"), { message: "404" }));
  expect((await settled).map((s) => (s.status === "rejected" ? (s.reason as Error).message : "answered"))).toEqual(["404", "404"]); // prettier-ignore
  void sky.entry("M 82");
  expect(DeafWorker.all).toHaveLength(2);
});

describe("a question asked again", () => {
  it("is answered from memory, anew when it is another one, and anew after a failure (reported: a ribbon failed for ever)", async () => {
    const asked: number[] = [];
    let isDown = true;
    const ask = rememberingLast(({ n }: { readonly n: number }) => {
      asked.push(n);
      return isDown ? Promise.reject(new Error("no network")) : Promise.resolve(n * 2);
    });
    await expect(ask({ n: 1 })).rejects.toThrow("no network");
    isDown = false;
    expect(await ask({ n: 1 })).toBe(2);
    expect(await ask({ n: 1 })).toBe(2);
    expect(await ask({ n: 3 })).toBe(6);
    expect(asked).toEqual([1, 1, 3]);
  });
});
