import type { Edit, RecordKind, StoredRecord } from "~/core/crew";
import type { KeepFault, RecordFault } from "~/core/records";
import type { Result } from "~/core/result";

/** What checks records could not be fetched: neither the network nor the browser's copy of the app has it. */
export class NotFetched extends Error {}

/** Who checks records; every call may reject with `NotFetched`. Pages that this version wrote need no check. */
export interface Checks {
  /** Reads records one by one, in the order given. */
  readonly records: (raws: readonly unknown[]) => Promise<readonly Result<StoredRecord, RecordFault>[]>;
  /** The first edit whose data its own schema would not read again; null = none. */
  readonly refused: (edits: readonly Edit[]) => Promise<KeepFault | null>;
  /** The version of the data of every kind, as it is written now. */
  readonly versions: () => Promise<Readonly<Record<RecordKind, number>>>;
}
