import type { StoredRecord } from "~/core/crew";

/** A record marked with the version of its data; version 1 goes unmarked, as it always has. */
export const marked = <D>(record: StoredRecord<D>, version: number): StoredRecord<D> =>
  version > 1 ? { ...record, v: version } : record;
