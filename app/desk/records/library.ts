import { unlike, type Heads, type RecordKind, type StoredRecord } from "~/core/crew";
import type { ContributionData } from "~/core/ledger";
import type { DataOf } from "~/core/records";
import { slot, type Desk } from "~/desk/desk";

/** Something a person owns, as screens use it. */
export interface Entity<D> {
  readonly id: string;
  readonly rev: string;
  readonly author: string;
  readonly data: D;
  /** Versions written at the same time elsewhere that say something else, latest first; normally none. One of them may be a deletion. */
  readonly copies: readonly StoredRecord<D>[];
}

/** A stored thing that does not decode; kept as it is. */
export interface Quarantined {
  readonly key: string;
  readonly reason: string;
  readonly raw: unknown;
}

type Contribution = Entity<ContributionData>;

/** Log entries by what screens ask for. A list stays the same object until something in it changes. */
export interface ContributionIndex {
  readonly byProject: ReadonlyMap<string, readonly Contribution[]>;
  readonly byPlace: ReadonlyMap<string, readonly Contribution[]>;
  readonly byMember: ReadonlyMap<string, readonly Contribution[]>;
  readonly byNight: ReadonlyMap<string, readonly Contribution[]>;
}

/** Which list a kind is in, and whether it goes by name. The settings are one record and in none. */
const LISTS = {
  place: { list: "places", isNamed: true },
  rig: { list: "rigs", isNamed: true },
  filter: { list: "filters", isNamed: true },
  project: { list: "projects", isNamed: true },
  part: { list: "parts", isNamed: false },
  frame: { list: "frames", isNamed: false },
  goal: { list: "goals", isNamed: false },
  contribution: { list: "contributions", isNamed: false },
  calibration: { list: "calibrations", isNamed: false },
  member: { list: "members", isNamed: true },
  forecast: { list: "forecasts", isNamed: false },
  look: { list: "looks", isNamed: false },
  target: { list: "ownTargets", isNamed: true },
  lock: { list: "locks", isNamed: false },
  wish: { list: "wishes", isNamed: false },
  night: { list: "nightFacts", isNamed: false },
  intake: { list: "intakes", isNamed: false },
  handOver: { list: "handOvers", isNamed: false },
  /** Nights that have begun, with what was planned then. */
  begun: { list: "begunNights", isNamed: false },
  /** What was pressed in the nights themselves. */
  event: { list: "nightEvents", isNamed: false },
} as const satisfies Readonly<
  Record<Exclude<RecordKind, "settings">, { readonly list: string; readonly isNamed: boolean }>
>;

type Listed = keyof typeof LISTS;

/** What is of each kind, by the name of its list: a kind that is in none does not compile. */
type Lists = {
  readonly [K in Listed as (typeof LISTS)[K]["list"]]: readonly Entity<DataOf[K]>[];
};

/** All a person owns, as a value: a change makes another one that shares what did not change. */
export interface Library extends Lists {
  /** The desk it lies on: whose clock it goes by, and where what is derived from it is kept. */
  readonly desk: Desk;
  readonly settings: Entity<DataOf["settings"]> | null;
  /** The same log entries, sorted for those who ask for some. */
  readonly log: ContributionIndex;
  readonly quarantine: readonly Quarantined[];
  /** False when the browser refuses to store: all is gone when the tab closes. */
  readonly isLasting: boolean;
}

/** What the library is made from. */
export interface Shelf {
  readonly isLasting: boolean;
  all(): Iterable<Heads>;
  unread(): readonly Quarantined[];
}

/** Entities by the versions they were made of. */
const known = slot(() => new WeakMap<Heads, Entity<unknown>>());

/**
 * The entity of a record's heads: the same object for the same heads, so that what is derived from it can be kept. What was
 * deleted in one place and changed in another at the same time is shown and asked about; null when it is deleted everywhere.
 */
function entityOf(entities: WeakMap<Heads, Entity<unknown>>, heads: Heads): Entity<unknown> | null {
  const before = entities.get(heads);
  if (before) return before;
  const shown = heads.find((head) => head.deletedAt === undefined);
  if (!shown) return null;
  const made = {
    id: shown.id,
    rev: shown.rev,
    author: shown.author,
    data: shown.data,
    copies: unlike([shown, ...heads.filter((head) => head !== shown)]).slice(1),
  };
  entities.set(heads, made);
  return made;
}

function groupBy(
  list: readonly Contribution[],
  keyOf: (c: Contribution) => string,
  before: ReadonlyMap<string, readonly Contribution[]> | undefined,
): ReadonlyMap<string, readonly Contribution[]> {
  const groups = new Map<string, Contribution[]>();
  for (const entry of list) {
    const group = groups.get(keyOf(entry));
    if (group) group.push(entry);
    else groups.set(keyOf(entry), [entry]);
  }
  if (!before) return groups;
  const kept = new Map<string, readonly Contribution[]>(groups);
  for (const [key, group] of groups) {
    const old = before.get(key);
    if (old && old.length === group.length && group.every((e, i) => e === old[i])) kept.set(key, old);
  }
  return kept;
}

const indexOf = (list: readonly Contribution[], before?: ContributionIndex): ContributionIndex => ({
  byProject: groupBy(list, (c) => c.data.projectId, before?.byProject),
  byPlace: groupBy(list, (c) => c.data.placeId, before?.byPlace),
  byMember: groupBy(list, (c) => c.data.memberId, before?.byMember),
  byNight: groupBy(list, (c) => c.data.night, before?.byNight),
});

const KINDS = Object.keys(LISTS) as Listed[];
const { compare } = new Intl.Collator("en");

/** Sorts stored records into a library; tombstones drop out. With `before` and the kinds that changed, the rest is shared with it. */
export function libraryOf(
  desk: Desk,
  shelf: Shelf,
  change?: { readonly before: Library; readonly kinds: ReadonlySet<RecordKind> },
): Library {
  const isWanted = (kind: RecordKind) => !change || change.kinds.has(kind);
  const entities = desk.at(known);
  const found = new Map<RecordKind, Entity<unknown>[]>();
  for (const heads of shelf.all()) {
    const { kind } = heads[0];
    if (!isWanted(kind)) continue;
    const entity = entityOf(entities, heads);
    if (!entity) continue;
    const list = found.get(kind);
    if (list) list.push(entity);
    else found.set(kind, [entity]);
  }
  const listOf = (kind: Listed): readonly Entity<unknown>[] => {
    const { list, isNamed } = LISTS[kind];
    if (!isWanted(kind)) return change?.before[list] ?? [];
    const all = found.get(kind) ?? [];
    if (isNamed) (all as Entity<{ name: string }>[]).sort((a, b) => compare(a.data.name, b.data.name));
    return all;
  };
  // What the store gives out was checked by the schema of its kind, from which these types come.
  const lists = Object.fromEntries(KINDS.map((kind) => [LISTS[kind].list, listOf(kind)])) as unknown as Lists;
  const settings = found.get("settings")?.[0] as Library["settings"] | undefined;
  return {
    ...lists,
    desk,
    settings: isWanted("settings") ? (settings ?? null) : (change?.before.settings ?? null),
    log: isWanted("contribution")
      ? indexOf(lists.contributions, change?.before.log)
      : (change?.before.log ?? indexOf([])),
    quarantine: shelf.unread(),
    isLasting: shelf.isLasting,
  };
}

/** A record that was written in two places at once, with its kind. */
export interface Torn {
  readonly kind: RecordKind;
  readonly entity: Entity<unknown>;
}

/** All that was written in two places at once and is not decided yet. */
export function tornIn(library: Library): Torn[] {
  const all: Torn[] = KINDS.flatMap((kind) => {
    const list: readonly Entity<unknown>[] = library[LISTS[kind].list];
    return list.map((entity) => ({ kind, entity }));
  });
  if (library.settings) all.push({ kind: "settings", entity: library.settings });
  return all.filter(({ entity }) => entity.copies.length > 0);
}
