import type { Heads } from "~/core/crew";
import { decodeBundle } from "~/core/formats";
import demo from "~/data/demo.json";
import { libraryOf, type Library } from "./library";

/** Records as a library, for tests. */
export function libraryOfRecords(records: readonly Heads[0][]): Library {
  return libraryOf({ isLasting: true, all: () => records.map((r): Heads => [r]), unread: () => [] });
}

/** The demo group as a library, for tests of the desk. */
export function demoLibrary(): Library {
  const bundle = decodeBundle(JSON.stringify(demo));
  if (!bundle.ok) throw new Error(bundle.error.code);
  return libraryOfRecords(bundle.value.records);
}
