import type { RecordKind } from "~/core/crew";
import { fieldsOf, type FieldChange } from "~/core/records";

/** A record of a file as it is called on a page. */
export interface NamedRecord {
  readonly kind: RecordKind;
  readonly name: string;
  /** When it says that it was written. */
  readonly atMs: number;
}

/** What a record is called on a page. */
export function nameOf(kind: RecordKind, { id, data }: { readonly id: string; readonly data: unknown }): string {
  const { name, title, night } = fieldsOf({ data });
  const said = [name, title, night].find((text) => typeof text === "string" && text !== "");
  return typeof said === "string" ? said : `${kind} ${id}`;
}

/** Something here that a friend's file would change, field by field. */
export interface RecordChange {
  readonly kind: RecordKind;
  readonly id: string;
  readonly name: string;
  /** One's own, or used for oneself: it stays as it is unless one says yes. */
  readonly isMine: boolean;
  /** The friend deleted it. */
  readonly isDeleted: boolean;
  readonly fields: readonly FieldChange[];
}

/** The name of one thing to say yes to: a field of a record, or its deletion. */
export const changeKey = (
  { kind, id }: Pick<RecordChange, "kind" | "id">,
  field: Pick<FieldChange, "path"> | null,
): string => JSON.stringify([kind, id, ...(field?.path ?? [])]);
