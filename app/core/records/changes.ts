import stableText from "fast-json-stable-stringify";
import type Joi from "joi";
import type { RecordKind } from "~/core/crew";
import { schemaOf } from "./kinds";
import { isFields, type FieldChange, type Fields } from "./field-change";

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
