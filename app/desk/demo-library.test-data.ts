import type { Heads } from "~/core/crew";
import { decodeBundle } from "~/core/formats";
import demo from "~/data/demo.json";
import { createSources } from "~/services/sources";
import type { Desk } from "./desk";
import { readerHere, testDesk } from "./desk.test-data";
import { libraryOf, type Library } from "./records/library";

/** The demo's desk on its evening. */
export const demoDesk = (of: Parameters<typeof testDesk>[0] = {}) =>
  testDesk({ isDemo: true, sources: createSources(undefined, readerHere.forecast), ...of });

/** Records as a library, for tests. */
export function libraryOfRecords(records: readonly Heads[0][], desk: Desk = demoDesk()): Library {
  return libraryOf(desk, { isLasting: true, all: () => records.map((r): Heads => [r]), unread: () => [] });
}

/** What the demo group has. */
export function demoRecords(): readonly Heads[0][] {
  const bundle = decodeBundle(JSON.stringify(demo));
  if (!bundle.ok) throw new Error(bundle.error.code);
  return bundle.value.records;
}

/** The demo group as a library, for tests of the desk. */
export const demoLibrary = (desk: Desk = demoDesk()): Library => libraryOfRecords(demoRecords(), desk);
