import type { RecordKind, StoredRecord } from "~/core/crew";
import type { RecordOf } from "./kinds";

/** Whether a record that its schema has read is of a kind. */
export const isOf = <K extends RecordKind>(kind: K, record: StoredRecord): record is RecordOf<K> =>
  record.kind === kind;

/** What a record says, by the names of its fields: for what is asked of all kinds alike. */
export const fieldsOf = ({ data }: { readonly data: unknown }): Readonly<Record<string, unknown>> =>
  typeof data === "object" && data !== null ? (data as Readonly<Record<string, unknown>>) : {};
