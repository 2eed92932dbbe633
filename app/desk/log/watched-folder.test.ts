import { readdirSync, readFileSync } from "node:fs";
import { afterEach, expect, it, vi } from "vitest";
import type { ContributionData, SubMeasure } from "~/core/ledger";
import { err, ok } from "~/core/result";
import { memoryBrowser, type MemoryBrowser } from "~/desk/desk.test-data";
import { demoDesk, demoRecords } from "~/desk/demo-library.test-data";
import type { OpenFolder } from "~/services/folders";
import { readOne } from "~/workers/read-file";
import { intake } from "./intake";
import { keep } from "~/desk/records/acts";
import { clearEverything } from "~/desk/records/clear";
import { WATCH_NOTE } from "./landings";
import { landingOf } from "./landing";
import { theWatchedFolder, type WatchState } from "./watched-folder";

const measure: SubMeasure = { fwhmPx: 2.5, eccentricity: 0.4, stars: 321, background: 1000, from: "picture" };
const samples = readdirSync("public/demo")
  .filter((name) => name.endsWith(".fits"))
  .sort();

/** A folder in memory; every look is asked for, so that nothing goes by a clock. */
function folderHere() {
  const files = new Map<string, File>();
  let next: () => void = () => undefined;
  let hasLeave = true;
  const isOpen = { looks: 0 };
  const folder: OpenFolder = {
    name: "subs",
    handle: "the handle",
    hasLeave: () => Promise.resolve(hasLeave),
    askLeave: () => Promise.resolve((hasLeave = true)),
    list: () => {
      isOpen.looks++;
      if (!hasLeave) return Promise.reject(new DOMException("no leave", "NotAllowedError"));
      return Promise.resolve(
        [...files].map(([path, file]) => ({
          path, sizeBytes: file.size, modifiedMs: file.lastModified, open: () => Promise.resolve(file),
        })),
      ); // prettier-ignore
    },
    waiter: (signal) =>
      Promise.resolve(
        () =>
          new Promise<void>((resolve) => {
            next = resolve;
            signal.addEventListener("abort", () => resolve(), { once: true });
          }),
      ),
  };
  /** Another look, and all that comes of it. */
  const look = async () => {
    const before = isOpen.looks;
    await vi.waitUntil(() => {
      next();
      return isOpen.looks > before;
    });
  };
  return {
    folder,
    look,
    put: (name: string, lastModified: number, as = name) =>
      files.set(as, new File([readFileSync(`public/demo/${name}`)], name, { lastModified })),
    takeLeave: () => (hasLeave = false),
  };
}

/** A tab of the demo in a browser, with that folder to choose. */
function tabOf(browser: MemoryBrowser, { folder }: ReturnType<typeof folderHere>) {
  const desk = demoDesk({
    browser,
    supplies: { sample: () => Promise.resolve(demoRecords()) },
    folders: {
      canChoose: () => true,
      choose: () => Promise.resolve(folder),
      reopen: (handle) => (handle === folder.handle ? folder : null),
    },
    files: {
      // As the worker reads them; what it measures is its own tests' matter.
      land: (landed) =>
        Promise.all(
          landed.map(async ({ file, path }) => {
            const facts = await readOne(file, path);
            return { name: file.name, facts: facts.ok ? ok({ ...facts.value, measure }) : facts };
          }),
        ),
    },
  });
  const watch = desk.at(theWatchedFolder);
  opened.push(watch);
  const until = (is: (state: WatchState) => boolean) => vi.waitUntil(() => is(watch.latest()));
  return { desk, watch, until };
}
const opened: { stop(): void }[] = [];
afterEach(() => {
  opened.splice(0).forEach((w) => w.stop());
  vi.restoreAllMocks();
});

const logged = (list: readonly { readonly data: ContributionData }[]) => list.map((c) => c.data.fileName);

it("puts subs into the log as they land, with their stars, once, and leaves what lay there", async () => {
  const here = folderHere();
  here.put(samples[0]!, 1);
  const { desk, watch, until } = tabOf(memoryBrowser(), here);
  const before = (await desk.library()).contributions.length;
  await watch.choose();
  await until((s) => s.phase === "watching" && s.files === 1);
  here.put(samples[1]!, 2);
  here.put(samples[2]!, 3);
  await here.look();
  await here.look();
  await until((s) => s.added > 0 && s.reading === 0);
  const library = await desk.library();
  const landed = library.contributions.slice().filter((c) => c.data.measure?.stars === 321);
  expect(watch.latest()).toMatchObject({ phase: "watching", files: 3, fault: null });
  expect(logged(landed)).toContain(samples[1]);
  expect(logged(library.contributions)).not.toContain(samples[0]);
  expect(library.contributions.length - before).toBe(landed.length);
  // It is what the pages tell as the last sub of its night.
  const last = landed.toSorted((a, b) => a.data.startMs! - b.data.startMs!).at(-1)!;
  expect(landingOf(library, last.data.night as never, last.data.rigId)!.landing.sub.data.measure).toEqual(measure);
  await here.look();
  await here.look();
  expect((await desk.library()).contributions.length).toBe(library.contributions.length);
});

it("goes on by itself after a reload while the leave holds, and takes what landed meanwhile", async () => {
  const here = folderHere();
  const browser = memoryBrowser();
  here.put(samples[0]!, 5);
  const first = tabOf(browser, here);
  await first.watch.choose();
  await first.until((s) => s.files === 1);
  expect(browser.notes.get(WATCH_NOTE)).toBe("5");
  // The tab goes without a word: its lock is let go, its note stays.
  first.watch.stop();
  browser.notes.set(WATCH_NOTE, "5");
  here.put(samples[1]!, 6);
  const second = tabOf(browser, here);
  await second.watch.wake();
  await second.until((s) => s.files === 2);
  await here.look();
  await second.until((s) => s.added === 1);
  expect(logged((await second.desk.library()).contributions)).not.toContain(samples[0]);
});

it("is done by one tab: the other says so, and may go on once the first has stopped", async () => {
  const here = folderHere();
  const browser = memoryBrowser();
  const [first, second] = [tabOf(browser, here), tabOf(browser, here)];
  await first.watch.choose();
  await first.until((s) => s.phase === "watching");
  await second.watch.choose();
  await second.until((s) => s.phase === "elsewhere");
  first.watch.stop();
  await second.watch.goOn();
  await second.until((s) => s.phase === "watching");
});

it("says that the leave is gone, and goes on by one press", async () => {
  const here = folderHere();
  const { watch, until } = tabOf(memoryBrowser(), here);
  await watch.choose();
  await until((s) => s.phase === "watching");
  here.takeLeave();
  await here.look();
  await until((s) => s.phase === "asksLeave");
  here.put(samples[1]!, 2);
  await watch.goOn();
  await until((s) => s.phase === "watching" && s.files === 1);
  await here.look();
  await until((s) => s.added === 1);
});

it("offers files again that could not be stored, and says why", async () => {
  const here = folderHere();
  const browser = memoryBrowser();
  let isFull = false;
  const full: MemoryBrowser = {
    ...browser,
    tab: () => {
      const tab = browser.tab();
      return {
        ...tab,
        open: async (name) => {
          const drawer = await tab.open(name);
          return {
            ...drawer,
            write: (v) => (isFull ? Promise.resolve(err({ code: "storageFull" })) : drawer.write(v)),
          };
        },
      };
    },
  };
  vi.spyOn(console, "error").mockImplementation(() => undefined);
  const { desk, watch, until } = tabOf(full, here);
  await desk.library();
  await watch.choose();
  await until((s) => s.phase === "watching");
  isFull = true;
  here.put(samples[1]!, 2);
  await here.look();
  await here.look();
  await until((s) => s.fault !== null);
  expect(watch.latest().added).toBe(0);
  isFull = false;
  await here.look();
  await until((s) => s.added === 1 && s.fault === null);
});

it("keeps files that need a word until they are in the log, over a reload too", async () => {
  const here = folderHere();
  const browser = memoryBrowser();
  const { desk, watch, until } = tabOf(browser, here);
  // A light of a night before its project began cannot be: it is asked about.
  const library = await desk.library();
  const read = await readOne(new File([readFileSync(`public/demo/${samples[1]!}`)], samples[1]!), samples[1]!);
  const booked = intake(library, [{ name: samples[1]!, facts: read }]);
  const edit = booked.edits[0]!;
  const projectId = (edit.data as ContributionData).projectId;
  const project = library.projects.find((p) => p.id === projectId)!;
  await keep(desk, [{ kind: "project", id: projectId, data: { ...project.data, startedOn: "2027-01-01" }, baseRev: project.rev }]); // prettier-ignore
  await watch.choose();
  await until((s) => s.phase === "watching");
  here.put(samples[1]!, 2);
  await here.look();
  await here.look();
  await until((s) => s.asked.length === 1);
  expect(watch.latest().added).toBe(0);
  await watch.settle();
  expect(watch.latest().asked).toHaveLength(1);
  // The next visit reads it again: what is noted lies before it.
  await vi.waitUntil(() => browser.notes.get(WATCH_NOTE) === "1");
  const doubted = intake(await desk.library(), watch.latest().asked);
  const sure = doubted.report.doubts.map((d) => d.key);
  await keep(desk, intake(await desk.library(), watch.latest().asked, { sure }).edits);
  await watch.settle();
  expect(watch.latest().asked).toEqual([]);
  expect(browser.notes.get(WATCH_NOTE)).toBe("2");
});

it("stops when all data is deleted, and does not go on by itself after that", async () => {
  const here = folderHere();
  const browser = memoryBrowser();
  const { desk, watch, until } = tabOf(browser, here);
  await watch.choose();
  await until((s) => s.phase === "watching");
  await desk.library();
  await clearEverything(desk);
  expect(watch.latest().phase).toBe("off");
  expect(browser.notes.has(WATCH_NOTE)).toBe(false);
});

it("leaves what it remembers of a person's folder alone while a rehearsal's is watched, and is not taken from them for it", async () => {
  const [here, own] = [folderHere(), folderHere()];
  const browser = memoryBrowser();
  const desk = demoDesk({
    browser,
    supplies: { sample: () => Promise.resolve(demoRecords()) },
    files: { land: () => Promise.resolve([]) },
    folders: {
      canChoose: () => true,
      choose: () => Promise.resolve(here.folder),
      own: () => Promise.resolve(own.folder),
      reopen: () => here.folder,
    },
  });
  const watch = desk.at(theWatchedFolder);
  here.put(samples[0]!, 1000);
  await watch.choose();
  await here.look();
  const note = desk.cupboard.notes.read(WATCH_NOTE);
  expect(note).not.toBeNull();
  expect(await watch.watchOwn("rehearsal")).toBe(false);
  expect(watch.latest().folderName).toBe("subs");
  // Left over from an earlier visit it waits; the rehearsal's comes and goes, and what was seen stays as it was noted.
  watch.stop();
  desk.cupboard.notes.write(WATCH_NOTE, note!);
  expect(await watch.watchOwn("rehearsal")).toBe(true);
  own.put(samples[1]!, 9_000_000);
  await own.look();
  await own.look();
  expect(desk.cupboard.notes.read(WATCH_NOTE)).toBe(note);
  watch.stop();
  expect(desk.cupboard.notes.read(WATCH_NOTE)).toBe(note);
});
