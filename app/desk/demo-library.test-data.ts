import type { Heads } from "~/core/crew";
import { decodeBundle } from "~/core/formats";
import demo from "~/data/demo.json";
import { libraryOf, type Library } from "~/storage/library";

/** The demo group as a library, for tests of routes. */
export function demoLibrary(): Library {
  const bundle = decodeBundle(JSON.stringify(demo));
  if (!bundle.ok) throw new Error(bundle.error.code);
  return libraryOf(new Map(bundle.value.records.map((r) => [r.id, [r] as Heads])), [], true);
}
