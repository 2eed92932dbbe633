import { isSubName } from "~/core/formats";
import { listFolder, type Directory, type Found, type KnownFile } from "./folder-listing";

/** What the last look at a folder found: nothing new; something that is still being written; no folder. */
export type LastLook = "quiet" | "settling" | "missing";

/** A folder of this computer that its owner chose. */
export interface OpenFolder {
  readonly name: string;
  /** As the browser keeps it for another day. */
  readonly handle: unknown;
  /** Whether it may be read as things stand. */
  readonly hasLeave: () => Promise<boolean>;
  /** Asks for leave to read; browsers allow it upon a press alone. */
  readonly askLeave: () => Promise<boolean>;
  /** The subs in it. */
  readonly list: (signal: AbortSignal, known: KnownFile) => Promise<readonly Found[]>;
  /** How to wait for the next look. */
  readonly waiter: (signal: AbortSignal) => Promise<(found: LastLook) => Promise<void>>;
}

/** Who opens folders. */
export interface Folders {
  /** Whether this browser hands out folders at all. */
  readonly canChoose: () => boolean;
  /** Lets a person choose one; null = they chose none. */
  readonly choose: () => Promise<OpenFolder | null>;
  /** One of the app's own in the origin's private file system, emptied: what the stand-in observatory writes into. Null = this browser has none. */
  readonly own: (name: string) => Promise<OpenFolder | null>;
  /** Takes one of the app's own away with all that is in it, where there is one. */
  readonly dropOwn: (name: string) => Promise<void>;
  /** One that the browser kept; null when it is none. */
  readonly reopen: (handle: unknown) => OpenFolder | null;
}

/** What of the File System Access API is used here (WICG draft) and TypeScript does not know. */
interface Handle extends Directory {
  readonly queryPermission?: (of: { readonly mode: "read" }) => Promise<PermissionState>;
  readonly requestPermission?: (of: { readonly mode: "read" }) => Promise<PermissionState>;
}
interface Observer {
  readonly observe: (handle: Handle, of: { readonly recursive: boolean }) => Promise<void>;
  readonly disconnect: () => void;
}
interface Browser {
  readonly showDirectoryPicker?: (of: { readonly id: string; readonly mode: "read" }) => Promise<Handle>;
  readonly navigator?: {
    readonly storage?: {
      readonly getDirectory?: () => Promise<{
        readonly removeEntry: (name: string, of: { readonly recursive: boolean }) => Promise<void>;
        readonly getDirectoryHandle: (name: string, of: { readonly create: boolean }) => Promise<Handle>;
      }>;
    };
  };
  readonly FileSystemObserver?: new (onChange: () => void) => Observer;
}
const browser = (): Browser => globalThis;

const SETTLE_MS = 500; // a file that keeps its size so long is complete; should it grow after all, it is read again
const POLL_MS = 3000;
const HIDDEN_POLL_MS = 20_000; // nobody looks: the battery counts
const TOLD_POLL_MS = 60_000; // the browser tells of changes; this is for those it misses

/** Resolves after a time, or when called. */
function pause(ms: number, signal: AbortSignal): { readonly over: Promise<void>; readonly end: () => void } {
  let end = (): void => undefined;
  const over = new Promise<void>((resolve) => {
    end = () => {
      clearTimeout(timer);
      signal.removeEventListener("abort", end); // a night has thousands of pauses
      resolve();
    };
    const timer = setTimeout(end, ms);
    signal.addEventListener("abort", end);
  });
  return { over, end };
}

/** Waits by what the browser tells of a folder, where it does, else by the clock. */
async function waiterOf(handle: Handle, signal: AbortSignal): Promise<(last: LastLook) => Promise<void>> {
  let [wake, isChanged]: [() => void, boolean] = [() => undefined, false];
  const { FileSystemObserver } = browser();
  let isTold = false;
  if (FileSystemObserver) {
    const observer = new FileSystemObserver(() => {
      isChanged = true;
      wake();
    });
    isTold = await observer.observe(handle, { recursive: true }).then(
      () => true,
      () => false, // not of this folder: by the clock then
    );
    signal.addEventListener("abort", () => observer.disconnect(), { once: true });
  }
  let lookedMs = 0;
  return async (last) => {
    const isWatchedOver = isTold && last !== "missing";
    const quiet = isWatchedOver ? TOLD_POLL_MS : document.hidden ? HIDDEN_POLL_MS : POLL_MS;
    if (last === "settling") await pause(SETTLE_MS, signal).over;
    else if (!isChanged) {
      const { over, end } = pause(quiet, signal);
      wake = end;
      await over;
    }
    // Told of many times a second while files are written: a look every half a second is enough.
    const restMs = lookedMs + SETTLE_MS - performance.now();
    if (restMs > 0) await pause(restMs, signal).over;
    lookedMs = performance.now();
    isChanged = false;
  };
}

function openFolder(handle: Handle): OpenFolder {
  const isGranted = async (ask: Handle["queryPermission"]) =>
    !ask || (await ask.call(handle, { mode: "read" })) === "granted";
  return {
    name: handle.name === "" ? "the folder" : handle.name,
    handle,
    hasLeave: () => isGranted(handle.queryPermission),
    askLeave: () => isGranted(handle.requestPermission),
    list: (signal, known) => listFolder(handle, isSubName, signal, known),
    waiter: (signal) => waiterOf(handle, signal),
  };
}

const isHandle = (value: unknown): value is Handle =>
  typeof value === "object" && value !== null && "kind" in value && value.kind === "directory" && "entries" in value;

/** The origin's private file system; absent in some browsers, and where storage is refused. */
const privateRoot = async () =>
  browser()
    .navigator?.storage?.getDirectory?.()
    .catch(() => undefined);

/** Folders by the browser's own handles. */
export const browserFolders: Folders = {
  canChoose: () => browser().showDirectoryPicker !== undefined,
  async choose() {
    try {
      const handle = await browser().showDirectoryPicker?.({ id: "subs", mode: "read" });
      return handle ? openFolder(handle) : null;
    } catch (error) {
      if (error instanceof DOMException && error.name === "AbortError") return null;
      throw error;
    }
  },
  async own(name) {
    await this.dropOwn(name);
    const root = await privateRoot();
    return root ? openFolder(await root.getDirectoryHandle(name, { create: true })) : null;
  },
  async dropOwn(name) {
    await (await privateRoot())?.removeEntry(name, { recursive: true }).catch(() => undefined); // it was not there
  },
  reopen: (handle) => (isHandle(handle) ? openFolder(handle) : null),
};
