/** A file of a watched folder, as its listing tells it. */
export interface Listed {
  /** From the folder on, with "/". */
  readonly path: string;
  readonly sizeBytes: number;
  /** When it was last written, ms since 1970. */
  readonly modifiedMs: number;
}

/** What is known of a file: there when watching began; being written; its reading asked for. */
type Standing = "old" | "written" | "read";

/** How the watching of a folder stands, as pages show it. */
export interface WatchShown {
  /** Off; its folder is remembered and wants leave by a press; another tab does it; on; on, but the folder is gone. */
  readonly phase: "off" | "asksLeave" | "elsewhere" | "watching" | "vanished";
  /** null = none was ever chosen here. */
  readonly folderName: string | null;
  /** Subs that lie in it. */
  readonly files: number;
  /** Subs that are being read now. */
  readonly reading: number;
  /** Subs and calibration frames that were added since watching began here. */
  readonly added: number;
}

/** A watched folder as it was when somebody last looked. */
export interface Watched {
  readonly files: ReadonlyMap<string, Listed & { readonly standing: Standing }>;
}

/** What a look at a folder found. */
export interface FolderNews {
  readonly watched: Watched;
  /** Files that are complete and were not read. */
  readonly toRead: readonly Listed[];
  /** Files that go by another name or lie elsewhere now: they are not read again. */
  readonly moved: readonly { readonly from: string; readonly to: string }[];
}

/** The folder when watching begins: what lies there is not read, unless it was written after the last that was seen earlier. */
export const beginWatching = (listing: readonly Listed[], seenMs = Infinity): Watched => ({
  files: new Map(listing.map((f) => [f.path, { ...f, standing: f.modifiedMs > seenMs ? "written" : "old" }])),
});

/** When the latest of some files was written, ms since 1970; 0 without any. */
export const latestMs = (files: readonly Listed[]): number => files.reduce((ms, f) => Math.max(ms, f.modifiedMs), 0);

const isSame = (a: Listed, b: Listed): boolean => a.sizeBytes === b.sizeBytes && a.modifiedMs === b.modifiedMs;
const contentOf = (f: Listed): string => `${f.sizeBytes} ${f.modifiedMs}`;
const nameOf = (path: string): string => path.slice(path.lastIndexOf("/") + 1);

/**
 * Looks at a folder again. A file counts as complete when two looks find it with one size and one time of writing, and more than nothing
 * in it: programs write a sub piece by piece. One that vanished while another of the same size and time came, by the same name where
 * there are several, was moved. One that is written anew is read anew.
 */
export function lookAgain({ files }: Watched, listing: readonly Listed[]): FolderNews {
  const here = new Set(listing.map((f) => f.path));
  const vanished = [...files.values()].filter((f) => !here.has(f.path));
  const leftBy = new Map<string, (typeof vanished)[number][]>();
  for (const f of vanished) leftBy.set(contentOf(f), [...(leftBy.get(contentOf(f)) ?? []), f]);
  const next = new Map<string, Listed & { readonly standing: Standing }>();
  const toRead: Listed[] = [];
  const moved: { from: string; to: string }[] = [];
  /** Takes what a file that came was before, if it is one that went; one by the same name before others. */
  const takeLeft = (f: Listed) => {
    const left = leftBy.get(contentOf(f)) ?? [];
    const i = Math.max(0, left.findIndex((l) => nameOf(l.path) === nameOf(f.path))); // prettier-ignore
    return left.splice(i, 1)[0];
  };
  // Those that kept their names first: of two moved at once the other one's is left for the rest.
  const came = listing.filter((f) => !files.has(f.path));
  const names = new Set(vanished.map((f) => nameOf(f.path)));
  const before = new Map<string, Listed & { readonly standing: Standing }>();
  for (const f of [...came].sort((a, b) => Number(names.has(nameOf(b.path))) - Number(names.has(nameOf(a.path))))) {
    const left = takeLeft(f);
    if (!left) continue;
    before.set(f.path, left);
    moved.push({ from: left.path, to: f.path });
  }
  for (const f of listing) {
    const was = files.get(f.path) ?? before.get(f.path);
    if (!was || !isSame(was, f)) {
      next.set(f.path, { ...f, standing: "written" });
    } else if (was.standing === "written" && f.sizeBytes > 0) {
      next.set(f.path, { ...f, standing: "read" });
      toRead.push(f);
    } else next.set(f.path, { ...f, standing: was.standing });
  }
  return { watched: { files: next }, toRead, moved };
}
