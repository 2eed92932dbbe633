import { RECORD_KINDS, type Edit, type RecordKind, type StoredRecord } from "~/core/crew";
import type { Result } from "~/core/result";
import { decodeData, decodeRecord, type RecordFault } from "./decode";
import { schemaOf } from "./kinds";
import type { KeepFault } from "./refusal";

/** What is refused before anything is stored: the first edit whose data its own schema would not read again; null = none. */
export function refusedEdit(edits: readonly Edit[]): KeepFault | null {
  for (const { kind, data, isDeleted } of edits) {
    if (isDeleted) continue;
    const read = decodeData(kind, data);
    if (!read.ok) return { code: "recordRefused", kind, path: read.error.path, message: read.error.message };
  }
  return null;
}

/** Records read one by one, in the order given. */
export const decodeRecords = (raws: readonly unknown[]): Result<StoredRecord, RecordFault>[] => raws.map(decodeRecord);

/** The version of the data of every kind, as this version of the app writes it. */
export const dataVersions = (): Readonly<Record<RecordKind, number>> =>
  Object.fromEntries(RECORD_KINDS.map((kind) => [kind, schemaOf(kind).version])) as Record<RecordKind, number>;
