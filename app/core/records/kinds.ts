import type { Edit, RecordKind, StoredRecord } from "~/core/crew";
import { begun } from "./begun";
import { event } from "./event";
import { calibration } from "./calibration";
import { contribution } from "./contribution";
import { filter } from "./filter";
import { forecast } from "./forecast";
import { frame } from "./frame";
import { goal } from "./goal";
import { handOver } from "./hand-over";
import { intake } from "./intake";
import type { RecordSchema } from "./kind";
import { lock } from "./lock";
import { look } from "./look";
import { member } from "./member";
import { nightFacts } from "./night-facts";
import { part } from "./part";
import { place } from "./place";
import { project } from "./project";
import { rig } from "./rig";
import { settings } from "./settings";
import { target } from "./target";
import { wish } from "./wish";

/** How each kind is read. */
export const SCHEMAS = {
  place,
  rig,
  filter,
  project,
  part,
  frame,
  goal,
  contribution,
  calibration,
  night: nightFacts,
  member,
  settings,
  forecast,
  look,
  target,
  lock,
  wish,
  intake,
  handOver,
  begun,
  event,
} as const satisfies Readonly<Record<RecordKind, RecordSchema<never> | RecordSchema<unknown> | object>>;

/** The data of a record of each kind. */
export type DataOf = {
  readonly [K in RecordKind]: (typeof SCHEMAS)[K] extends RecordSchema<infer D> ? D : never;
};

/** A change to a record, with data as its kind has it; of one that is deleted nobody looks at the data. */
export type EditOf<K extends RecordKind = RecordKind> =
  | { readonly [P in K]: Edit & { readonly kind: P; readonly data: DataOf[P] } }[K]
  | (Edit & { readonly kind: K; readonly isDeleted: true });

/** A record that its schema has read, with data as its kind has it. */
export type RecordOf<K extends RecordKind = RecordKind> = {
  readonly [P in K]: StoredRecord<DataOf[P]> & { readonly kind: P };
}[K];

/** A kind's schema without the type of its data, for code that handles all kinds alike. */
export const schemaOf = (kind: RecordKind): RecordSchema<unknown> => SCHEMAS[kind];
