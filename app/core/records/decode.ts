import Joi from "joi";
import { RECORD_KINDS, parseRev, unsoundness, type RecordKind, type StoredRecord } from "~/core/crew";
import { err, ok, type Result } from "~/core/result";
import { id, instantMs } from "./fields";
import { schemaOf } from "./kinds";
import { marked } from "./version-mark";

/** What is wrong with a record: where in it, and in words. */
export interface RecordFault {
  readonly code: "recordInvalid" | "recordNewer";
  readonly path: string;
  readonly message: string;
}

const RECORD = Joi.object({
  id,
  kind: Joi.string().valid(...RECORD_KINDS),
  rev: Joi.string(),
  author: id,
  seen: Joi.object().pattern(Joi.string(), Joi.string()),
  v: Joi.number().integer().min(1).optional(),
  deletedAt: instantMs.optional(),
  data: Joi.object().unknown(true),
});

const OPTIONS = {
  presence: "required",
  allowUnknown: true,
  convert: false,
  abortEarly: true,
  errors: { wrap: { label: false } },
} as const;

function check(schema: Joi.Schema, value: unknown, prefix: string): Result<unknown, RecordFault> {
  const r = schema.validate(value, OPTIONS);
  if (!r.error) return ok(r.value);
  const detail = r.error.details[0];
  return err({
    code: "recordInvalid",
    path: [prefix, ...(detail?.path ?? [])].filter((p) => p !== "").join("."),
    message: detail?.message ?? r.error.message,
  });
}

/** Checks the data of a record of a kind, as this version writes it. */
export const decodeData = (kind: RecordKind, data: unknown): Result<unknown, RecordFault> =>
  check(schemaOf(kind).schema, data, "");

/** Brings data of an earlier version to this one, step by step. */
export function migrateData(kind: RecordKind, data: unknown, from: number): unknown {
  const { migrations } = schemaOf(kind);
  return migrations.slice(from - 1).reduce((d, step) => step(d), data as Readonly<Record<string, unknown>>);
}

/**
 * Reads one record from storage or a file, brought to this version. Fields this version does not know are kept. A tombstone's
 * data is not looked at.
 */
export function decodeRecord(value: unknown): Result<StoredRecord, RecordFault> {
  const outer = check(RECORD, value, "");
  if (!outer.ok) return outer;
  const record = outer.value as StoredRecord;
  const doubt = unsoundness(record);
  if (doubt) return err({ code: "recordInvalid", path: parseRev(record.rev) ? "seen" : "rev", message: doubt });
  if (record.deletedAt !== undefined) return ok(record);
  const { version } = schemaOf(record.kind);
  const written = record.v ?? 1;
  if (written > version)
    return err({ code: "recordNewer", path: "v", message: `written by a newer version (${record.kind} ${written})` });
  const data = migrateData(record.kind, record.data, written);
  const inner = check(schemaOf(record.kind).schema, data, "data");
  return inner.ok ? ok(stamped({ ...record, data })) : inner;
}

/** A record marked with the version that this version of the app writes data of its kind in. */
export const stamped = <D>(record: StoredRecord<D>): StoredRecord<D> => marked(record, schemaOf(record.kind).version);
