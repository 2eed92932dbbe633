import type { CatalogEntry, Kind } from "~/core/catalog";
import { searchKey } from "~/core/catalog";
import { separationDeg } from "~/core/sky";

const GLOWING: ReadonlySet<Kind> = new Set([
  "emissionNebula",
  "supernovaRemnant",
  "wolfRayetNebula",
  "reflectionNebula",
]);

/** A nebula that somebody picked by hand, and how far from its middle it reaches. */
interface Host {
  readonly entry: CatalogEntry;
  readonly reachDeg: number;
}

/** The nebula that an entry nobody picked by hand is a knot, or another list's name, of. */
function hostOf(entry: CatalogEntry, hosts: readonly Host[]): CatalogEntry | null {
  if (entry.curated || !GLOWING.has(entry.kind)) return null;
  for (const { entry: host, reachDeg } of hosts) {
    if (Math.abs(entry.at.decDeg - host.at.decDeg) > reachDeg) continue;
    if (separationDeg(entry.at, host.at) <= reachDeg) return host;
  }
  return null;
}

/**
 * One line for one thing: of a group and its members, a field and its objects, a nebula and its knots, whichever stands first by this
 * rig's frame stands for the others; those say by `within` what stands for them. Lines in the order of their rank.
 */
export function standingFor<T extends { readonly row: number; readonly within: string | null }>(
  ranked: readonly T[],
  entries: readonly CatalogEntry[],
): T[] {
  const rows = rowsByKey(entries);
  const covered = new Map<number, string>();
  const hosts: Host[] = [];
  const cover = (row: number, by: CatalogEntry) => {
    if (!covered.has(row)) covered.set(row, by.id);
  };
  return ranked.map((line) => {
    const entry = entries[line.row]!;
    const by = covered.get(line.row);
    if (by !== undefined) return { ...line, within: by };
    const host = hostOf(entry, hosts);
    if (host) return { ...line, within: host.id };
    for (const row of rows.membersOf.get(line.row) ?? []) cover(row, entry);
    for (const row of rows.groupsOf.get(line.row) ?? []) cover(row, entry);
    if (entry.curated && entry.majorArcmin !== null && GLOWING.has(entry.kind))
      hosts.push({ entry, reachDeg: entry.majorArcmin / 2 / 60 });
    return line;
  });
}

/** Which rows are members of which, by the lists of hand-picked entries. */
interface Kinship {
  readonly membersOf: ReadonlyMap<number, readonly number[]>;
  readonly groupsOf: ReadonlyMap<number, readonly number[]>;
}

const known = new WeakMap<readonly CatalogEntry[], Kinship>();

function rowsByKey(entries: readonly CatalogEntry[]): Kinship {
  const before = known.get(entries);
  if (before) return before;
  const wanted = new Set(entries.flatMap((e) => e.curated?.members.map(searchKey) ?? []));
  const byKey = new Map<string, number>();
  entries.forEach((e, row) => {
    for (const text of [e.id, ...e.aliases]) {
      const key = searchKey(text);
      if (wanted.has(key) && !byKey.has(key)) byKey.set(key, row);
    }
  });
  const membersOf = new Map<number, number[]>();
  const groupsOf = new Map<number, number[]>();
  entries.forEach((e, row) => {
    const members = (e.curated?.members ?? []).flatMap((m) => byKey.get(searchKey(m)) ?? []).filter((m) => m !== row);
    if (members.length === 0) return;
    membersOf.set(row, members);
    for (const m of members) groupsOf.set(m, [...(groupsOf.get(m) ?? []), row]);
  });
  const found = { membersOf, groupsOf };
  known.set(entries, found);
  return found;
}
