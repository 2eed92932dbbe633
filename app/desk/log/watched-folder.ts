import type { WatchShown } from "~/core/live";
import type { KeepFault } from "~/core/records";
import { slot } from "~/desk/desk";
import { keep } from "~/desk/records/acts";
import type { Library } from "~/desk/records/library";
import { libraryHere } from "~/desk/records/open-library";
import type { Found } from "~/services/folder-listing";
import type { OpenFolder } from "~/services/folders";
import type { LandedFile, ReadFile } from "~/workers/files";
import type { LeftOut } from "./intake";
import { onStopAll, tellLanding, WATCH_NOTE } from "./landings";
import { watchFolder } from "./watch";

/** The watched folder, as the log asks about it and says what it left out. */
export interface WatchState extends WatchShown {
  /** Files that wait for what a person says of them. */
  readonly asked: readonly ReadFile[];
  readonly refused: readonly { readonly name: string; readonly why: LeftOut }[];
  /** Why the last ones could not be stored; they are offered again. */
  readonly fault: KeepFault | null;
}

/** Watches one folder in one tab: its subs go into the log as they land. */
export interface WatchedFolder {
  readonly latest: () => WatchState;
  readonly listen: (listener: () => void) => () => void;
  /** Whether this browser hands out folders. */
  readonly canChoose: () => boolean;
  /** Chooses a folder and watches it. Only from a press. */
  readonly choose: () => Promise<void>;
  /** Watches an emptied folder of the app's own; false = this browser has none, or a folder is watched already, here or in another tab. */
  readonly watchOwn: (name: string) => Promise<boolean>;
  /** Goes on with the remembered folder, asking for leave. Only from a press. */
  readonly goOn: () => Promise<void>;
  /** Goes on where this browser watched when it was left, if the leave still holds; says what is missing otherwise. */
  readonly wake: () => Promise<void>;
  readonly stop: () => void;
  /** Looks again at the files that wait: those in the log by now are done. */
  readonly settle: () => Promise<void>;
}

const LOCK = "watch";
const KEY = "folder";

/** Opens complete files; one that went meanwhile is left out. */
async function openAll(found: readonly Found[]): Promise<readonly LandedFile[]> {
  const files = await Promise.all(
    found.map(async ({ path, open }) => {
      try {
        return { file: await open(), path };
      } catch (error) {
        if (error instanceof DOMException && error.name === "NotFoundError") return null;
        throw error;
      }
    }),
  );
  return files.flatMap((f) => f ?? []);
}

/** What comes of files; fetched when the first have landed, since it checks entries and pages do not. */
const intakeOf = async (library: Library, files: readonly ReadFile[]) =>
  (await import("./intake")).intake(library, files);

/** The folder that this tab watches. */
export const theWatchedFolder = slot((desk): WatchedFolder => {
  const listeners = new Set<() => void>();
  let state: WatchState = {
    phase: "off", folderName: null, files: 0, reading: 0, added: 0, asked: [], refused: [], fault: null,
  }; // prettier-ignore
  let running: AbortController | null = null;
  /** It is a folder of the app's own, of a rehearsal: what is remembered of a person's folder stays as it is. */
  let isOwn = false;
  let waking: Promise<void> | null = null;
  let remembered: OpenFolder | null = null;

  const set = (more: Partial<WatchState>) => {
    const isNew = Object.entries(more).some(([name, value]) => state[name as keyof WatchState] !== value);
    if (!isNew) return; // a look that found nothing new draws no page anew
    state = { ...state, ...more };
    listeners.forEach((listener) => listener());
  };

  const { notes, tabs } = desk.cupboard;
  /** When the last file was written that a look dealt with, and when each of those that wait for a word. */
  let seen: number | null = null;
  const writtenMs = new WeakMap<ReadFile, number>();
  /** Notes up to where all is dealt with: files that wait are read again by the next visit, and wait there. */
  const noteSeen = () => {
    if (seen === null || state.phase === "off" || isOwn) return; // of a folder of the app's own nothing is remembered
    const text = String(state.asked.reduce((ms, f) => Math.min(ms, (writtenMs.get(f) ?? Infinity) - 1), seen));
    if (notes.read(WATCH_NOTE) !== text) notes.write(WATCH_NOTE, text);
  };

  /** Puts files into the log: what is certain at once, the rest waits to be asked about. */
  const book = async (read: readonly ReadFile[]): Promise<void> => {
    const { edits, report, outcomes } = await intakeOf(await libraryHere(desk), read);
    const done = edits.length > 0 ? await keep(desk, edits) : null;
    if (done && !done.ok) {
      set({ fault: done.error });
      throw new DOMException(done.error.code, "QuotaExceededError"); // offered again at the next look
    }
    // One that was cut short then, or asked about, may have been written anew since.
    const isReadAnew = ({ name }: { readonly name: string }) => read.some((f) => f.name === name);
    set({
      fault: null,
      added: state.added + edits.length - report.measured,
      asked: [...state.asked.filter((f) => !isReadAnew(f)), ...read.filter((_, i) => outcomes[i] === "asked")],
      refused: [...state.refused.filter((f) => !isReadAnew(f)), ...report.refused],
    });
    if (done) tellLanding(desk);
  };

  const take = async (found: readonly Found[], signal: AbortSignal): Promise<void> => {
    set({ reading: found.length });
    try {
      const landed = await openAll(found);
      const read = await desk.workers.files.land(landed, signal);
      read.forEach((r, i) => writtenMs.set(r, landed[i]!.file.lastModified));
      await book(read);
    } finally {
      set({ reading: 0 });
    }
  };

  const remember = async (folder: OpenFolder): Promise<void> => {
    remembered = folder;
    const drawer = await desk.cupboard.open("folder");
    await drawer.write(new Map([[KEY, folder.handle]])); // a browser that keeps no handles is asked again next time
  };

  /** Watches until it is stopped or the leave is gone. */
  const run = async (folder: OpenFolder, seenMs: number | null, controller: AbortController): Promise<void> => {
    const { signal } = controller;
    try {
      await watchFolder(
        {
          seenMs,
          list: folder.list,
          untilNext: await folder.waiter(signal),
          take,
          tell(standing, files, dealtWithMs) {
            seen = dealtWithMs ?? seen;
            set({ files, phase: standing === "noLeave" ? "asksLeave" : standing });
            noteSeen();
          },
        },
        signal,
      );
    } finally {
      controller.abort(); // lets the other tabs have it
      if (running === controller) running = null;
    }
  };

  /** Begins to watch, if no other tab does. */
  const begun = async (folder: OpenFolder, seenMs: number | null): Promise<void> => {
    running?.abort();
    const controller = new AbortController();
    running = controller;
    seen = null;
    set({ folderName: folder.name, files: 0, added: 0, refused: [], fault: null });
    if (!(await tabs.hold(LOCK, controller.signal))) {
      running = null;
      set({ phase: "elsewhere" });
      return;
    }
    set({ phase: "watching" });
    run(folder, seenMs, controller).catch((error: unknown) => {
      console.error(error);
      set({ phase: "asksLeave" }); // a folder that cannot even be waited for: to be chosen or allowed again
    });
  };

  /** The folder of an earlier visit; null without one. */
  const recall = async (): Promise<OpenFolder | null> => {
    if (remembered) return remembered;
    const drawer = await desk.cupboard.open("folder");
    remembered = desk.folders.reopen(await drawer.read(KEY));
    return remembered;
  };
  const seenBefore = (): number | null => {
    const text = notes.read(WATCH_NOTE);
    return text === null ? null : Number(text);
  };

  const wakeUp = async (): Promise<void> => {
    if (running) return;
    const folder = await recall();
    if (!folder) return;
    const seenMs = seenBefore();
    if (seenMs !== null && (await folder.hasLeave())) await begun(folder, seenMs);
    else set({ phase: seenMs === null ? "off" : "asksLeave", folderName: folder.name });
  };

  const stop = () => {
    running?.abort();
    running = null;
    if (!isOwn) notes.drop(WATCH_NOTE);
    isOwn = false;
    set({ phase: "off", reading: 0 });
  };
  onStopAll(desk, stop);

  return {
    latest: () => state,
    listen(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    canChoose: () => desk.folders.canChoose(),
    async choose() {
      const folder = await desk.folders.choose();
      if (!folder) return;
      await remember(folder);
      isOwn = false;
      await begun(folder, null);
    },
    async watchOwn(name) {
      if (running && !isOwn) return false; // a person's folder is not left for it
      const folder = await desk.folders.own(name);
      if (!folder) return false;
      isOwn = true;
      await begun(folder, null);
      return state.phase === "watching";
    },
    async goOn() {
      const folder = await recall();
      if (!folder || !(await folder.askLeave())) return;
      isOwn = false;
      // What landed while nobody looked is taken too: the log knows what it has.
      await begun(folder, seenBefore());
    },
    // Whatever page opens asks for it, and the pages that show it too: once is enough.
    wake: () => (waking ??= wakeUp().finally(() => (waking = null))),
    stop,
    async settle() {
      const { outcomes } = await intakeOf(await libraryHere(desk), state.asked);
      set({ asked: state.asked.filter((_, i) => outcomes[i] === "asked") });
      noteSeen();
    },
  };
});
