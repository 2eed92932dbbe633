import stableText from "fast-json-stable-stringify";
import type Joi from "joi";
import type { RecordKind } from "~/core/crew";
import { schemaOf } from "./kinds";

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

type Fields = Readonly<Record<string, unknown>>;

const isFields = (v: unknown): v is Fields => typeof v === "object" && v !== null && !Array.isArray(v);
const isSame = (a: unknown, b: unknown) =>
  a === b || (a !== undefined && b !== undefined && stableText(a) === stableText(b));

/** What the schema of a kind calls a field. */
function naming(kind: RecordKind, path: readonly string[]): { readonly label: string; readonly unit: string } {
  try {
    // The schema library describes schemas on the server only; its flags are there in the browser too.
    const schema: Joi.Schema = schemaOf(kind).schema.extract([...path]);
    const flag = (name: string): string => {
      const value: unknown = schema.$_getFlag(name);
      return typeof value === "string" ? value : "";
    };
    return { label: flag("label"), unit: flag("unit") };
  } catch {
    return { label: "", unit: "" }; // a field this version does not know
  }
}

/** The fields in which two versions of a record differ; a list counts as one field, an object field by field. */
export function changedFields(kind: RecordKind, from: unknown, to: unknown): FieldChange[] {
  const walk = (a: Fields, b: Fields, lead: readonly string[]): FieldChange[] =>
    [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((key): FieldChange[] => {
      const [was, is, path] = [a[key], b[key], [...lead, key]];
      if (isSame(was, is)) return [];
      if (isFields(was) && isFields(is)) return walk(was, is, path);
      return [{ path, ...naming(kind, path), from: was, to: is }];
    });
  return isFields(from) && isFields(to) ? walk(from, to, []) : [];
}

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
