import { expose } from "comlink";
import { afterEach, describe, expect, it, vi } from "vitest";
import { rememberingLast } from "./client";
import type { CatalogEntry } from "~/core/catalog";
import type { RankedTarget } from "~/core/night";
import { createSkyClient, type RankedEntry, type RankQuestion } from "./sky";

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

describe("a ranking", () => {
  const entry = (id: string) => ({ id }) as CatalogEntry;
  const row = (n: number) => ({ row: n }) as RankedTarget;
  const parts = <T>(list: readonly T[], size: number, onPart: (part: readonly T[]) => void) => {
    for (let i = 0; i < list.length; i += size) onPart(list.slice(i, i + size));
    return list.length;
  };

  /** A worker that knows so many objects and ranks them the last first; how often it was asked for all of them. */
  function workerOf(count: number, isDown = () => false) {
    const all = vi.fn((onPart: (part: readonly CatalogEntry[]) => void) => {
      if (isDown()) throw new Error("no network");
      return {
        count: parts(
          Array.from({ length: count }, (_, i) => entry(`NGC ${i}`)),
          7,
          onPart,
        ),
      };
    });
    const rank = ({ own }: RankQuestion, onPart: (part: readonly RankedTarget[]) => void) => ({
      count: parts(
        Array.from({ length: count + own.length }, (_, i) => row(count + own.length - 1 - i)),
        5,
        onPart,
      ),
      tooLow: 3,
    });
    vi.stubGlobal("Worker", function () {
      const { port1, port2 } = new MessageChannel();
      expose({ all, rank }, port1);
      return port2;
    });
    return all;
  }
  const question = (...own: string[]) => ({ own: own.map(entry) }) as unknown as RankQuestion;
  const idsOf = ({ ranked }: { readonly ranked: readonly RankedEntry[] }) => ranked.map((r) => r.entry.id);

  it("comes in parts and is whole and in order, one's own behind the catalogue's rows; the catalogue is handed over once", async () => {
    for (const count of [0, 1, 7, 53]) {
      const all = workerOf(count);
      const sky = createSkyClient();
      const names = Array.from({ length: count }, (_, i) => `NGC ${i}`).reverse();
      const ranking = await sky.rank(question());
      expect([idsOf(ranking), ranking.tooLow]).toEqual([names, 3]);
      expect(idsOf(await sky.rank(question("Own 1", "Own 2")))).toEqual(["Own 2", "Own 1", ...names]);
      expect(all).toHaveBeenCalledTimes(1);
    }
  });

  it("asks for the catalogue again after it could not be had", async () => {
    let isDown = true;
    workerOf(3, () => isDown);
    const sky = createSkyClient();
    await expect(sky.rank(question())).rejects.toThrow("no network");
    isDown = false;
    expect(idsOf(await sky.rank(question()))).toHaveLength(3);
  });
});
