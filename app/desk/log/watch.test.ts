import { expect, it, vi } from "vitest";
import type { Found } from "~/services/folder-listing";
import { watchFolder, type WatchStanding } from "./watch";

const file = (path: string, sizeBytes = 9, modifiedMs = 1): Found => ({
  path,
  sizeBytes,
  modifiedMs,
  open: () => Promise.resolve(new File([], path)),
});

/** Watches a folder that is so at every look; what was taken, look by look, and what was told. */
async function watching(
  looks: readonly (readonly Found[] | Error)[],
  isTaken: (look: number) => boolean = () => true,
  seenMs: number | null = null,
) {
  const controller = new AbortController();
  const taken: string[][] = [];
  const told: WatchStanding[] = [];
  let look = 0;
  await watchFolder(
    {
      seenMs,
      list: () => {
        const now = looks[look++]!;
        return now instanceof Error ? Promise.reject(now) : Promise.resolve(now);
      },
      untilNext: () => {
        if (look >= looks.length) controller.abort();
        return Promise.resolve();
      },
      take: (files) => {
        if (!isTaken(look)) return Promise.reject(new Error("full"));
        taken.push(files.map((f) => f.path));
        return Promise.resolve();
      },
      tell: (standing) => told.push(standing),
    },
    controller.signal,
  );
  return { taken, told, looks: look };
}

it("takes every new file once it is complete, and none that lay there", async () => {
  const [old, a, b] = [file("old.fits"), file("a.fits"), file("b.fits")];
  const { taken } = await watching([[old], [old, a], [old, a, b], [old, a, b], [old, a, b]]);
  expect(taken).toEqual([["a.fits"], ["b.fits"]]);
});

it("takes what could not be taken at the next look, under the name that it has by then", async () => {
  vi.spyOn(console, "error").mockImplementation(() => undefined);
  const a = file("a.fits");
  const { taken } = await watching([[], [a], [a], [file("Ha/a.fits")], [file("Ha/a.fits")]], (look) => look > 3);
  expect(taken).toEqual([["Ha/a.fits"]]);
  vi.restoreAllMocks();
});

it("looks again for a folder that vanished, and takes what came meanwhile when it is back", async () => {
  const a = file("a.fits");
  const gone = new DOMException("card pulled", "NotFoundError");
  const { taken, told } = await watching([[], gone, [a], [a]]);
  expect(taken).toEqual([["a.fits"]]);
  expect(told).toEqual(["watching", "vanished", "watching", "watching"]);
});

it("stops when the browser's leave is gone, and says so", async () => {
  const { told, looks } = await watching([[], new DOMException("no", "NotAllowedError"), [file("a.fits")]]);
  expect([told, looks]).toEqual([["watching", "noLeave"], 2]);
});

it("goes on after an earlier watch: takes what was written after the last that was seen, and leaves the rest", async () => {
  const [old, before, since] = [file("old.fits", 9, 5), file("b.fits", 9, 7), file("c.fits", 9, 8)];
  const { taken } = await watching(
    [
      [old, before, since],
      [old, before, since],
    ],
    () => true,
    7,
  );
  expect(taken).toEqual([["c.fits"]]);
});

it("asks files anew every tenth look: one that was written again under its name is taken again", async () => {
  const asked: string[][] = [];
  const controller = new AbortController();
  const taken: number[] = [];
  let look = 0;
  await watchFolder(
    {
      seenMs: null,
      list: (_, known) => {
        const now = [file("old.fits"), ...(look === 0 ? [] : [file("a.fits", look < 6 ? 9 : 20, look < 6 ? 1 : 2)])];
        const anew = now.filter((f) => known(f.path) === null);
        asked.push(anew.map((f) => f.path));
        look++;
        return Promise.resolve(now.map((f) => (anew.includes(f) ? f : { ...f, ...known(f.path) })));
      },
      untilNext: () => {
        if (look > 12) controller.abort();
        return Promise.resolve();
      },
      take: (files) => {
        taken.push(...files.map((f) => f.sizeBytes));
        return Promise.resolve();
      },
      tell: () => undefined,
    },
    controller.signal,
  );
  expect(asked.slice(0, 4)).toEqual([["old.fits"], ["a.fits"], ["a.fits"], []]);
  expect(asked[10]).toEqual(["old.fits", "a.fits"]);
  expect(taken).toEqual([9, 20]);
});
