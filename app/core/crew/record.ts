/** Kinds of record. Further kinds can be added without migration. */
export const RECORD_KINDS = [
  "place",
  "rig",
  "filter",
  "project",
  "part",
  "frame",
  "goal",
  "contribution",
  "calibration",
  "night",
  "member",
  "settings",
  "forecast",
  "look",
  "target",
  "lock",
  "wish",
  "intake",
  "handOver",
  "begun",
  "event",
] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];

/** One version of one record. */
export interface StoredRecord<D = unknown> {
  readonly id: string;
  readonly kind: RecordKind;
  /** Hybrid logical clock reading of this version. */
  readonly rev: string;
  /** Member who wrote it. */
  readonly author: string;
  /** Latest revision of every node that this version builds upon, itself included. */
  readonly seen: Readonly<Record<string, string>>;
  /** Version of the data (core/records); absent = 1. */
  readonly v?: number;
  /** Set on a tombstone. */
  readonly deletedAt?: number;
  readonly data: D;
}

/** All versions of one record that no other version builds upon; the winner first. One unless two people edited at once. */
export type Heads<D = unknown> = readonly [StoredRecord<D>, ...StoredRecord<D>[]];

/**
 * A change to make. `baseRev` is the version the page showed; null for something new, "latest" to build upon whatever counts
 * now. Versions beside that one stay, unless `settles` names them.
 */
export interface Edit {
  readonly kind: RecordKind;
  readonly id: string;
  readonly data: unknown;
  readonly baseRev: string | null;
  readonly isDeleted?: boolean;
  /** Revisions of copies it replaces too: the person has looked at them and chosen. */
  readonly settles?: readonly string[];
  /** Takes an act back: versions that say the same as what it builds upon, written by others, stay. */
  readonly isBack?: boolean;
}

/** What a record is known by: its kind and its id. */
export const recordKey = (record: { readonly kind: RecordKind; readonly id: string }): string =>
  `${record.kind}/${record.id}`;

/** What a thing that does not read says that it is, as far as it says so: kind and id. */
export function keyOfRaw(raw: unknown): string {
  const { kind, id } = (typeof raw === "object" && raw !== null ? raw : {}) as { kind?: unknown; id?: unknown };
  return `${typeof kind === "string" ? kind : "?"}/${typeof id === "string" ? id : "?"}`;
}
