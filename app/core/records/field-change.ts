/** One field in which two versions of a record differ. */
export interface FieldChange {
  /** Names from the outside in: ["sensor", "binning"]. */
  readonly path: readonly string[];
  /** What its form calls it; "" where it has no form. */
  readonly label: string;
  readonly unit: string;
  /** Undefined = not there. */
  readonly from: unknown;
  readonly to: unknown;
}

/** What a record says, by the names of its fields. */
export type Fields = Readonly<Record<string, unknown>>;

export const isFields = (v: unknown): v is Fields => typeof v === "object" && v !== null && !Array.isArray(v);

/** Data with some of the changes made in it. */
export function withChanges(data: unknown, changes: readonly FieldChange[]): unknown {
  const put = (fields: Fields, [key, ...rest]: readonly string[], to: unknown): Fields => {
    if (key === undefined) return fields;
    if (rest.length > 0) {
      const inner = fields[key];
      return { ...fields, [key]: put(isFields(inner) ? inner : {}, rest, to) };
    }
    if (to !== undefined) return { ...fields, [key]: to };
    const { [key]: _, ...others } = fields;
    return others;
  };
  return changes.reduce<Fields>((d, { path, to }) => put(d, path, to), isFields(data) ? data : {});
}
