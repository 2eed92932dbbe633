import { decodeBundle, openPanelList, readForecast } from "~/core/formats";
import { playNight, preparedNight } from "~/core/rehearsal";
import { dataVersions, decodeRecords, refusedEdit } from "~/core/records";
import { planEvenings, waitingOdds } from "~/core/plan";
import { whyEvening, type NightStock, type SeasonPlan, type SeasonWork } from "~/core/season";
import { utcMs } from "~/core/time";
import type { Folders } from "~/services/folders";
import type { Sources } from "~/services/sources";
import { memoryDrawer, type Drawer } from "~/storage/driver";
import type { Cupboard, Notes } from "~/storage/ports";
import type { SeasonClient } from "~/workers/season";
import type { SkyClient } from "~/workers/sky";
import type { Workers } from "~/workers/workers";
import { libraryHere } from "./records/open-library";
import type { Library } from "./records/library";
import { createDesk, type Desk, type Supplies } from "./desk";

/** A browser in memory, for tests: what it keeps, and every call opens a tab of it. */
export interface MemoryBrowser {
  readonly tab: () => Cupboard;
  readonly notes: Map<string, string>;
}

export function memoryBrowser(): MemoryBrowser {
  const drawers = new Map<string, Drawer>();
  const texts = new Map<string, string>();
  const listeners = new Map<object, () => void>();
  const held = new Set<string>();
  let pen: Promise<unknown> = Promise.resolve();
  const notes: Notes = {
    read: (name) => texts.get(name) ?? null,
    write: (name, text) => {
      texts.set(name, text);
      return true;
    },
    drop: (name) => void texts.delete(name),
    names: (lead) => [...texts.keys()].filter((name) => name.startsWith(lead)),
  };
  const tab = (): Cupboard => {
    const me = {};
    return {
      notes,
      open: (name) => {
        const drawer = drawers.get(name) ?? { ...memoryDrawer(), isLasting: true };
        drawers.set(name, drawer);
        return Promise.resolve(drawer);
      },
      openFirst: () => Promise.resolve(null),
      tabs: {
        exclusively: (_, work) => {
          const mine = pen.catch(() => undefined).then(work);
          pen = mine;
          return mine;
        },
        hold: (name, signal) => {
          if (held.has(name)) return Promise.resolve(false);
          held.add(name);
          signal.addEventListener("abort", () => held.delete(name), { once: true });
          return Promise.resolve(true);
        },
        // Every tab before counts as closed by the time another one looks for what it left.
        showOpen: () => undefined,
        openPages: () => Promise.resolve(new Set<string>()),
        announce: () => listeners.forEach((listener, of) => of !== me && queueMicrotask(listener)),
        onAnnounced: (listener) => void listeners.set(me, listener),
      },
      storageState: () => Promise.resolve({ usedBytes: null, mostBytes: null, promise: null }),
      askToKeep: () => Promise.resolve(true),
    };
  };
  return { tab, notes: texts };
}

/** Plans on the spot, without a worker. */
export function plannerHere(): SeasonClient {
  const stock: NightStock = new Map();
  let last: SeasonWork | null = null;
  let plan: SeasonPlan | null = null;
  return {
    plan(question, from, onPlan) {
      const steps = planEvenings(question, { ...from, stock });
      for (let step = steps.next(); ; step = steps.next()) {
        if (step.done) {
          last = step.value.work;
          plan = step.value.plan;
          return Promise.resolve(step.value.plan);
        }
        onPlan(step.value);
      }
    },
    know: () => undefined,
    stop: () => undefined,
    why: (evening) => Promise.resolve(last && whyEvening(last, evening)),
    waits(weeks, onWait) {
      if (!last || !plan) return Promise.resolve(false);
      for (const odds of waitingOdds(last.question, weeks, { stock, plan }))
        if (odds) onWait(odds.projectId, odds.doneShare);
      return Promise.resolve(true);
    },
    apart: () => Promise.reject(new Error("nobody plans apart here")),
  };
}

const nobody = (what: string) => () => Promise.reject(new Error(`nobody answers here: ${what}`));

/** A catalogue without an entry and a sky nobody has worked out; `more` answers what a test needs. */
const skyHere = (more: Partial<SkyClient>): SkyClient => ({
  sharing: nobody("sharing"),
  coverage: nobody("coverage"),
  rank: nobody("rank"),
  bestIn: nobody("bestIn"),
  find: nobody("find"),
  nearestTown: nobody("nearestTown"),
  year: nobody("year"),
  ribbon: nobody("ribbon"),
  search: () => Promise.resolve([]),
  towns: () => Promise.resolve([]),
  entry: () => Promise.resolve(null),
  within: () => Promise.resolve([]),
  ...more,
});

/** Reads small files on the spot, as the worker does. */
const filesHere: Workers["files"] = {
  read: nobody("files"),
  land: nobody("landed files"),
  measure: nobody("measures"),
  header: nobody("a header"),
  image: nobody("an image"),
  bundle: async (file) => decodeBundle(await file.text()),
  panels: async (file) => openPanelList(await file.text()),
  forecast: async (file, at) => readForecast(await file.text(), at),
};

/** Checks on the spot, as the worker does. */
export const readerHere: Workers["reader"] = {
  records: (raws) => Promise.resolve(decodeRecords(raws)),
  refused: (edits) => Promise.resolve(refusedEdit(edits)),
  versions: () => Promise.resolve(dataVersions()),
  forecast: (text, at) => Promise.resolve(readForecast(text, at)),
};

/** Plays on the spot; frames are the worker's own. */
/** Nobody holds a camera. */
const codesHere: Workers["codes"] = { read: () => Promise.resolve(null) };

/** No survey is asked. */
const surveyOfTest: Workers["survey"] = {
  facts: nobody("what a survey says"),
  picture: nobody("a picture of the sky"),
  small: nobody("a small picture of the sky"),
  stop: () => undefined,
  keep: nobody("a field to keep"),
  kept: () => Promise.resolve({ files: 0, bytes: 0, mostBytes: 0 }),
  forget: () => Promise.resolve(),
};

const rehearsalHere: Workers["rehearsal"] = {
  prepared: (which, target) => Promise.resolve(preparedNight(which, target)),
  play: (at) => Promise.resolve(playNight(at.night, at.seed, { ways: at.ways, then: "ask" })),
  judge: nobody("what a night brought"),
  seeds: nobody("other nights"),
  write: nobody("frames"),
  zip: nobody("frames"),
};

/** What a test says of its desk; the rest is as on a desk nobody has used. */
export interface TestDesk {
  /** Of which it is a tab; absent = one of its own. */
  readonly browser?: MemoryBrowser;
  /** An instant, ISO 8601; absent = the demo's evening. */
  readonly now?: string;
  readonly isDemo?: boolean;
  readonly sky?: Partial<SkyClient>;
  readonly season?: SeasonClient;
  readonly reader?: Workers["reader"];
  readonly sources?: Sources;
  readonly supplies?: Partial<Supplies>;
  readonly files?: Partial<Workers["files"]>;
  readonly folders?: Partial<Folders>;
  readonly survey?: Partial<Workers["survey"]>;
  readonly surveys?: readonly string[];
}

let named = 0;

/** A desk as tests use it. */
export interface DeskOfTest extends Desk {
  readonly setNow: (iso: string) => void;
  readonly library: () => Promise<Library>;
}

/** A desk for tests: things in memory, a clock that is set, names that are counted. */
export function testDesk(of: TestDesk = {}): DeskOfTest {
  let now = Date.parse(of.now ?? "2026-12-05T16:40:00Z");
  const desk = createDesk({
    cupboard: (of.browser ?? memoryBrowser()).tab(),
    clock: { now: () => utcMs(now), isDemo: of.isDemo ?? false },
    ids: { fresh: () => `n${(++named).toString(36).padStart(7, "0")}` },
    workers: {
      sky: skyHere(of.sky ?? {}),
      season: of.season ?? plannerHere(),
      files: { ...filesHere, ...of.files },
      frame: { place: nobody("a place"), cover: nobody("a cover") },
      reader: of.reader ?? readerHere,
      rehearsal: rehearsalHere,
      codes: codesHere,
      survey: { ...surveyOfTest, ...of.survey },
    },
    sources: of.sources ?? { all: [], ask: nobody("a forecast") },
    supplies: {
      sample: nobody("a sample"),
      plan: () => Promise.resolve(null),
      chart: nobody("a chart"),
      ...of.supplies,
    },
    folders: {
      canChoose: () => false,
      choose: nobody("a folder"),
      own: () => Promise.resolve(null),
      dropOwn: () => Promise.resolve(),
      reopen: () => null,
      ...of.folders,
    },
    surveys: of.surveys ?? [],
  });
  return Object.assign(desk, {
    setNow: (iso: string) => void (now = Date.parse(iso)),
    library: async () => libraryHere(desk),
  });
}
