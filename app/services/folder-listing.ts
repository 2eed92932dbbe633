import type { Listed } from "~/core/live";

/** What is asked of a directory: the browser's handles have it, those of the origin's private file system too. */
export interface Directory {
  readonly kind: "directory";
  readonly name: string;
  entries(): AsyncIterable<readonly [string, Directory | OneFile]>;
}

/** What is asked of a file in it. */
export interface OneFile {
  readonly kind: "file";
  readonly name: string;
  getFile(): Promise<File>;
}

/** A file with what opens it. */
export interface Found extends Listed {
  readonly open: () => Promise<File>;
}

const AT_ONCE = 64; // files asked for their size at a time
const DEEPEST = 8; // folders in folders: deeper is not where a camera writes, and links may go round

/** What is known of a file from an earlier look, where it need not be asked again. */
export type KnownFile = (path: string) => Listed | null;

/**
 * All files of a folder and those in it that are wanted, by their paths; one that goes while it is asked for is left out. Asking 3,000
 * files for their size takes most of a second: those that are known are taken as they were.
 */
export async function listFolder(
  root: Directory,
  isWanted: (name: string) => boolean,
  signal: AbortSignal,
  known: KnownFile = () => null,
): Promise<readonly Found[]> {
  const handles: { readonly path: string; readonly file: OneFile }[] = [];
  const walk = async (directory: Directory, lead: string, depth: number): Promise<void> => {
    for await (const [name, entry] of directory.entries()) {
      signal.throwIfAborted();
      if (entry.kind === "file") {
        if (isWanted(name)) handles.push({ path: lead + name, file: entry });
      } else if (depth < DEEPEST) await walk(entry, `${lead}${name}/`, depth + 1);
    }
  };
  await walk(root, "", 0);
  const found: Found[] = [];
  const unknown = handles.filter(({ path, file }) => {
    const was = known(path);
    if (was) found.push({ ...was, open: () => file.getFile() });
    return !was;
  });
  for (let i = 0; i < unknown.length; i += AT_ONCE) {
    signal.throwIfAborted();
    const some = await Promise.all(unknown.slice(i, i + AT_ONCE).map(({ path, file }) => factsOf(path, file)));
    found.push(...some.flatMap((f) => f ?? []));
  }
  return found.sort((a, b) => (a.path < b.path ? -1 : 1));
}

/** Size and time of a file; null when it is gone by now. */
async function factsOf(path: string, handle: OneFile): Promise<Found | null> {
  try {
    const { size, lastModified } = await handle.getFile();
    return { path, sizeBytes: size, modifiedMs: lastModified, open: () => handle.getFile() };
  } catch (error) {
    if (error instanceof DOMException && error.name === "NotFoundError") return null;
    throw error;
  }
}
