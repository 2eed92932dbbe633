import type { StoredRecord } from "~/core/crew";
import type { SkyData } from "~/core/catalog";
import type { UtcMs } from "~/core/time";
import type { SampleId } from "~/services/samples";
import type { Folders } from "~/services/folders";
import type { Sources } from "~/services/sources";
import type { Clock, Cupboard, Ids } from "~/storage/ports";
import type { Workers } from "~/workers/workers";
import { createMemo, type Memo } from "./memo";

/** What ships with the app and is fetched when it is first wanted. */
export interface Supplies {
  /** Records of an invented group. */
  readonly sample: (id: SampleId) => Promise<readonly StoredRecord[]>;
  /** The plan of the demo's own evening, as a browser would have kept it; it may be anything. */
  readonly plan: () => Promise<unknown>;
  /** Stars and figures for charts. */
  readonly chart: () => Promise<SkyData>;
}

/** What a desk is put up with: everything outside it that it knows. */
export interface Ports {
  /** Where things are kept. */
  readonly cupboard: Cupboard;
  readonly clock: Clock;
  readonly ids: Ids;
  /** Who does the long work. */
  readonly workers: Workers;
  /** Who tells the weather. */
  readonly sources: Sources;
  readonly supplies: Supplies;
  /** Who opens folders of this computer. */
  readonly folders: Folders;
  /** Names of the surveys whose pictures of the sky the server hands on. */
  readonly surveys: readonly string[];
}

/** Something that a room of the desk has at hand as long as the desk stands. */
export interface Slot<T> {
  readonly make: (desk: Desk) => T;
}

export const slot = <T>(make: (desk: Desk) => T): Slot<T> => ({ make });

/** A person's desk in one tab: what rooms derive, remember and have under way is on it, and nowhere else. */
export interface Desk extends Ports {
  readonly now: () => UtcMs;
  /** Whether this is the demo, on its own evening. */
  readonly isDemo: boolean;
  /** An identifier for a new record. */
  readonly newId: (prefix: string) => string;
  /** What was derived from the library. */
  readonly memo: Memo;
  /** What a room has at hand here: made when it is first asked for. */
  readonly at: <T>(of: Slot<T>) => T;
}

/** Puts up a desk. Two desks know nothing of each other but through their cupboard. */
export function createDesk(ports: Ports): Desk {
  const slots = new Map<Slot<unknown>, unknown>();
  const desk: Desk = {
    ...ports,
    now: ports.clock.now,
    isDemo: ports.clock.isDemo,
    newId: (prefix) => `${prefix}-${ports.ids.fresh()}`,
    memo: createMemo(),
    at<T>(of: Slot<T>): T {
      if (!slots.has(of)) slots.set(of, of.make(desk));
      return slots.get(of) as T; // what lies in a slot was made for it
    },
  };
  return desk;
}
