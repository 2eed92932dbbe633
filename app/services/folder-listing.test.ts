import { expect, it } from "vitest";
import { listFolder, type Directory, type OneFile } from "./folder-listing";

const file = (name: string, bytes = 3, atMs = 7): OneFile => ({
  kind: "file",
  name,
  getFile: () => Promise.resolve(new File([new Uint8Array(bytes)], name, { lastModified: atMs })),
});
const gone = (name: string, why: string): OneFile => ({
  kind: "file",
  name,
  getFile: () => Promise.reject(new DOMException("gone", why)),
});
const directory = (name: string, ...list: readonly (Directory | OneFile)[]): Directory => ({
  kind: "directory",
  name,
  async *entries() {
    for (const entry of list) yield await Promise.resolve([entry.name, entry] as const);
  },
});
const isFits = (name: string) => name.endsWith(".fits");

it("finds the wanted files of a folder and of those in it, by path, with size and time", async () => {
  const root = directory("night", file("b.fits", 5), file("note.txt"), directory("Ha", file("a.fits", 3, 9)));
  const found = await listFolder(root, isFits, new AbortController().signal);
  expect(found.map(({ path, sizeBytes, modifiedMs }) => [path, sizeBytes, modifiedMs])).toEqual([
    ["Ha/a.fits", 3, 9],
    ["b.fits", 5, 7],
  ]);
  expect((await found[1]!.open()).size).toBe(5);
});

it("asks only those for their size that are not known", async () => {
  const root = directory("night", gone("old.fits", "NotAllowedError"), file("new.fits", 4));
  const was = { path: "old.fits", sizeBytes: 8, modifiedMs: 2 };
  const found = await listFolder(root, isFits, new AbortController().signal, (path) =>
    path === was.path ? was : null,
  );
  expect(found.map((f) => [f.path, f.sizeBytes])).toEqual([
    ["new.fits", 4],
    ["old.fits", 8],
  ]);
});

it("leaves out what goes meanwhile, and tells when leave was taken back", async () => {
  const { signal } = new AbortController();
  const root = directory("night", gone("a.fits", "NotFoundError"), file("b.fits"));
  expect((await listFolder(root, isFits, signal)).map((f) => f.path)).toEqual(["b.fits"]);
  await expect(listFolder(directory("night", gone("a.fits", "NotAllowedError")), isFits, signal)).rejects.toThrow(
    "gone",
  );
});

it("can be stopped, and does not go round for ever in a folder that holds itself", async () => {
  const own: Directory = {
    ...directory("own"),
    async *entries() {
      yield await Promise.resolve(["a.fits", file("a.fits")] as const);
      yield ["own", own] as const;
    },
  };
  expect((await listFolder(own, isFits, new AbortController().signal)).length).toBeLessThan(20);
  await expect(listFolder(own, isFits, AbortSignal.abort())).rejects.toThrow();
});
