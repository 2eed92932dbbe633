import type { UtcMs } from "~/core/time";
import type { Drawer } from "./driver";

/** Tells the time. */
export interface Clock {
  readonly now: () => UtcMs;
  /** True on the demo's evening, which stands still. */
  readonly isDemo: boolean;
}

/** Gives names to new things. */
export interface Ids {
  /** A name nobody has yet: letters and figures, at most 12. */
  readonly fresh: () => string;
}

/** Small texts that are written down before the call is over. A browser may refuse: then nothing is there, and nothing throws. */
export interface Notes {
  readonly read: (name: string) => string | null;
  /** Whether it was written. */
  readonly write: (name: string, text: string) => boolean;
  readonly drop: (name: string) => void;
  /** Names that begin so. */
  readonly names: (lead: string) => string[];
}

/** The other tabs of this browser. */
export interface Tabs {
  /** Does work while no other tab does work under this name; rejects when another one does not let go. */
  readonly exclusively: <T>(name: string, work: () => Promise<T>) => Promise<T>;
  /** Takes a name for as long as the signal lets it; false = another tab has it. */
  readonly hold: (name: string, signal: AbortSignal) => Promise<boolean>;
  /** Shows the others that this page is open, for as long as it is shown. */
  readonly showOpen: (page: string) => void;
  /** Pages that show themselves open now. */
  readonly openPages: () => Promise<ReadonlySet<string>>;
  /** Tells the others that something was stored. */
  readonly announce: () => void;
  /** Calls back when another tab has announced something. */
  readonly onAnnounced: (listener: () => void) => void;
}

/** What is kept apart, each in a database of its own: pictures are large, drafts are many, plans can be made again, a folder is the browser's own. */
export type DrawerName = "library" | "drafts" | "plan" | "pictures" | "folder";

/** How safely this browser keeps what is stored, and how much that is. */
export interface StorageState {
  /** All of this origin's: records, pictures, and the app itself for use without its server; null = the browser does not say. */
  readonly usedBytes: number | null;
  /** What the browser would let it grow to. */
  readonly mostBytes: number | null;
  /** "kept" = only its owner deletes it; "clearable" = the browser may, when the disk is full; null = it does not say. */
  readonly promise: "kept" | "clearable" | null;
}

/** Where a desk keeps things: one browser profile, of the demo or of one's own data. */
export interface Cupboard {
  readonly open: (name: DrawerName) => Promise<Drawer>;
  /** What an earlier version kept, one value a record; null where there is none. */
  readonly openFirst: () => Promise<Drawer | null>;
  readonly notes: Notes;
  readonly tabs: Tabs;
  /** Asks the browser how things stand. */
  readonly storageState: () => Promise<StorageState>;
  /** Asks the browser to keep what is stored until its owner deletes it; whether it promises to. */
  readonly askToKeep: () => Promise<boolean>;
}
