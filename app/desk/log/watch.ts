import { beginWatching, latestMs, lookAgain, type Watched } from "~/core/live";
import type { Found, KnownFile } from "~/services/folder-listing";
import type { LastLook } from "~/services/folders";

/** How watching stands: on; the browser's leave is gone and one press gives it anew; the folder is gone, and looked for again. */
export type WatchStanding = "watching" | "noLeave" | "vanished";

/** What watching is made of. */
export interface WatchPorts {
  /** When the last file was written that an earlier watch saw, ms since 1970; null = this one begins anew. */
  readonly seenMs: number | null;
  /** The folder as it is now. */
  readonly list: (signal: AbortSignal, known: KnownFile) => Promise<readonly Found[]>;
  /** Resolves when it is time to look again. */
  readonly untilNext: (last: LastLook) => Promise<void>;
  /** Reads and books complete files; they are offered again where that fails. */
  readonly take: (files: readonly Found[], signal: AbortSignal) => Promise<void>;
  /** Told after every look; `seenMs` = when the last file was written that is dealt with; null where nothing could be looked at. */
  readonly tell: (standing: WatchStanding, files: number, seenMs: number | null) => void;
}

/** Every so many looks all files are asked anew whether they were written again; between, only those that came or are being written. */
const WHOLE_LOOK = 10;

const nameOf = (error: unknown): string => (error instanceof DOMException ? error.name : "");

/**
 * Watches a folder until it is stopped or the browser's leave is gone: takes every file that came and is complete, once. What lay there
 * when watching began is left alone. A folder that vanishes, as a card that is pulled, is looked for again, and what came meanwhile is
 * taken when it is back.
 */
export async function watchFolder(
  { seenMs, list, untilNext, take, tell }: WatchPorts,
  signal: AbortSignal,
): Promise<void> {
  let watched: Watched | null = null;
  let seen = seenMs ?? Infinity;
  /** Complete files that could not be taken. */
  let owed: readonly string[] = [];
  const known: KnownFile = (path) => {
    const file = watched?.files.get(path);
    return file && file.standing !== "written" ? file : null;
  };
  for (let look = 0; !signal.aborted; look++) {
    let isMissing = false;
    try {
      const found = await list(signal, look % WHOLE_LOOK === 0 ? () => null : known);
      if (!watched) {
        watched = beginWatching(found, seen);
        if (seen === Infinity) seen = latestMs(found);
      } else {
        const news = lookAgain(watched, found);
        watched = news.watched;
        const to = new Map(news.moved.map((m) => [m.from, m.to]));
        const wanted = new Set([...owed.map((path) => to.get(path) ?? path), ...news.toRead.map((f) => f.path)]);
        const files = found.filter((f) => wanted.has(f.path));
        owed = files.map((f) => f.path);
        if (files.length > 0) await take(files, signal);
        owed = [];
        seen = Math.max(seen, latestMs(files));
      }
      tell("watching", found.length, seen);
    } catch (error) {
      if (signal.aborted) return;
      if (nameOf(error) === "NotAllowedError") {
        tell("noLeave", 0, null);
        return;
      }
      isMissing = nameOf(error) === "NotFoundError";
      if (isMissing) tell("vanished", 0, null);
      else console.error(error);
    }
    const isWritten = [...(watched?.files.values() ?? [])].some((f) => f.standing === "written" && f.sizeBytes > 0);
    await untilNext(isMissing ? "missing" : isWritten ? "settling" : "quiet");
  }
}
