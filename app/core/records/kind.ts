import Joi from "joi";

/** Makes the data of one version from that of the version before. It never throws: what it does not know it leaves as it is. */
export type Migration = (data: Readonly<Record<string, unknown>>) => Readonly<Record<string, unknown>>;

/** How the data of a kind of record is read: its version, its schema, and the way from every earlier version. */
export interface RecordSchema<T> {
  readonly version: number;
  readonly schema: Joi.ObjectSchema<Plain<T>>;
  /** `migrations[0]` leads from version 1 to 2, and so on: one fewer than `version`. */
  readonly migrations: readonly Migration[];
}

/** A value as JSON has it: the schema library tells lists only by their mutable form, and knows no brands. */
export type Plain<T> = T extends number
  ? number
  : T extends string | boolean | null | undefined
    ? T
    : T extends readonly (infer U)[]
      ? Plain<U>[]
      : { -readonly [K in keyof T]: Plain<T[K]> };

/** The schema of an object, key by key as its type has them: one too many, one missing or of another kind does not compile. */
export const objectOf = <T>(keys: Joi.StrictSchemaMap<Plain<T>>): Joi.ObjectSchema<Plain<T>> =>
  Joi.object<Plain<T>, true>(keys);
