import type { OwnTarget } from "~/core/catalog";
import type { HandOverData, Heads, RecordKind, StoredRecord } from "~/core/crew";
import type { Filter, Rig } from "~/core/exposure";
import type { CalibrationData, ContributionData, IntakeData, LookData, NightFacts } from "~/core/ledger";
import type { Place } from "~/core/night";
import type { BegunData, FrameData, GoalData, PartData, ProjectData, WishData } from "~/core/plan";
import type { LockData } from "~/core/season";
import type { Member, Settings } from "~/core/records";
import type { ForecastData } from "~/core/weather";
import { slot, type Desk } from "~/desk/desk";

/** Something a person owns, as screens use it. */
export interface Entity<D> {
  readonly id: string;
  readonly rev: string;
  readonly author: string;
  readonly data: D;
  /** Versions written at the same time elsewhere, latest first; normally none. One of them may be a deletion. */
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

/** All a person owns, as a value: a change makes another one that shares what did not change. */
export interface Library {
  /** The desk it lies on: whose clock it goes by, and where what is derived from it is kept. */
  readonly desk: Desk;
  readonly places: readonly Entity<Place>[];
  readonly rigs: readonly Entity<Rig>[];
  readonly filters: readonly Entity<Filter>[];
  readonly projects: readonly Entity<ProjectData>[];
  readonly parts: readonly Entity<PartData>[];
  readonly frames: readonly Entity<FrameData>[];
  readonly goals: readonly Entity<GoalData>[];
  readonly contributions: readonly Contribution[];
  readonly calibrations: readonly Entity<CalibrationData>[];
  readonly members: readonly Entity<Member>[];
  readonly forecasts: readonly Entity<ForecastData>[];
  readonly looks: readonly Entity<LookData>[];
  readonly ownTargets: readonly Entity<OwnTarget>[];
  readonly locks: readonly Entity<LockData>[];
  readonly wishes: readonly Entity<WishData>[];
  readonly nightFacts: readonly Entity<NightFacts>[];
  readonly intakes: readonly Entity<IntakeData>[];
  readonly handOvers: readonly Entity<HandOverData>[];
  /** Nights that have begun, with what was planned then. */
  readonly begunNights: readonly Entity<BegunData>[];
  readonly settings: Entity<Settings> | null;
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
    copies: heads.filter((head) => head !== shown),
  };
  entities.set(heads, made);
  return made;
}

type List = keyof Pick<
  Library,
  | "places"
  | "rigs"
  | "filters"
  | "projects"
  | "parts"
  | "frames"
  | "goals"
  | "contributions"
  | "calibrations"
  | "members"
  | "forecasts"
  | "looks"
  | "ownTargets"
  | "locks"
  | "wishes"
  | "nightFacts"
  | "intakes"
  | "handOvers"
  | "begunNights"
>;

/** Which list a kind is in, and whether it goes by name. */
const LISTS: Readonly<Partial<Record<RecordKind, { readonly list: List; readonly isNamed: boolean }>>> = {
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
  begun: { list: "begunNights", isNamed: false },
};

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
  const lists: Partial<Record<List, unknown>> = {};
  for (const [kind, { list, isNamed }] of Object.entries(LISTS) as [RecordKind, { list: List; isNamed: boolean }][]) {
    if (!isWanted(kind)) continue;
    const all = found.get(kind) ?? [];
    if (isNamed) (all as Entity<{ name: string }>[]).sort((a, b) => compare(a.data.name, b.data.name));
    lists[list] = all;
  }
  const of = <L extends List>(list: L): Library[L] => (lists[list] ?? change?.before[list] ?? []) as Library[L];
  const contributions = of("contributions");
  return {
    desk,
    places: of("places"),
    rigs: of("rigs"),
    filters: of("filters"),
    projects: of("projects"),
    parts: of("parts"),
    frames: of("frames"),
    goals: of("goals"),
    contributions,
    calibrations: of("calibrations"),
    members: of("members"),
    forecasts: of("forecasts"),
    looks: of("looks"),
    ownTargets: of("ownTargets"),
    locks: of("locks"),
    wishes: of("wishes"),
    nightFacts: of("nightFacts"),
    intakes: of("intakes"),
    handOvers: of("handOvers"),
    begunNights: of("begunNights"),
    settings: isWanted("settings")
      ? ((found.get("settings")?.[0] as Entity<Settings> | undefined) ?? null)
      : (change?.before.settings ?? null),
    log: isWanted("contribution") ? indexOf(contributions, change?.before.log) : (change?.before.log ?? indexOf([])),
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
  const all = (Object.entries(LISTS) as [RecordKind, { readonly list: List }][]).flatMap(([kind, { list }]) =>
    (library[list] as readonly Entity<unknown>[]).map((entity) => ({ kind, entity })),
  );
  if (library.settings) all.push({ kind: "settings", entity: library.settings });
  return all.filter(({ entity }) => entity.copies.length > 0);
}
