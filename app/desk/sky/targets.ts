import { ownEntry, type CatalogEntry } from "~/core/catalog";
import { constellationOf } from "~/core/sky";
import type { Library } from "~/desk/records/library";

/** Targets of one's own in the form of the catalogue. */
export const ownEntries = (library: Library): CatalogEntry[] =>
  library.ownTargets.map((t) => ownEntry(t.id, t.data, constellationOf(t.data)));

/** What to call the target of a project: the designation, or the name of one's own. */
export const targetNameOf = (library: Library, targetId: string): string =>
  library.ownTargets.find((t) => t.id === targetId)?.data.name ?? targetId;

/** A target by its id: one's own, or a listed one by any of its designations. */
export async function findTarget(library: Library, targetId: string): Promise<CatalogEntry | null> {
  return ownEntries(library).find((e) => e.id === targetId) ?? (await library.desk.workers.sky.entry(targetId));
}
