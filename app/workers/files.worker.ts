import { expose } from "comlink";
import { exposureFactsOf, readFitsHeader, type FitsFault } from "~/core/formats";
import type { ExposureFacts } from "~/core/ledger";
import { err, ok, type Result } from "~/core/result";

/** What one dropped file turned out to be. */
export interface ReadFile {
  readonly name: string;
  readonly facts: Result<ExposureFacts, FitsFault | { readonly code: "unreadable" }>;
}

const FIRST_BYTES = 16 * 2880; // holds the header of nearly every exposure
const MOST_BYTES = 4_000_000; // a longer header is a broken one

/** Reads only as much of a file as its header needs. */
async function readOne(file: File): Promise<ReadFile["facts"]> {
  for (let length = FIRST_BYTES; length <= MOST_BYTES; length *= 4) {
    let bytes: Uint8Array;
    try {
      bytes = new Uint8Array(await file.slice(0, length).arrayBuffer());
    } catch {
      return err({ code: "unreadable" });
    }
    const header = readFitsHeader(bytes, file.size);
    if (header.ok) return ok(exposureFactsOf(header.value, { name: file.name, sizeBytes: file.size }));
    if (header.error.code !== "needMore") return header;
  }
  return err({ code: "truncatedHeader" });
}

const api = {
  async read(files: readonly File[], onProgress: (done: number) => void): Promise<ReadFile[]> {
    const results: ReadFile[] = [];
    for (const file of files) {
      results.push({ name: file.name, facts: await readOne(file) });
      if (results.length % 25 === 0) onProgress(results.length);
    }
    return results;
  },
};

export type FilesApi = typeof api;
expose(api);
