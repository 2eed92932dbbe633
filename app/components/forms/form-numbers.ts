import { parseQuantity } from "~/core/notation";
import type { NumberField } from "~/core/records";

/** A number box: its name in the form, and the field it fills. */
export interface NumberSpec extends NumberField {
  readonly name: string;
}

/** The boxes of a table of fields, in its order. */
export const specsOf = <K extends string>(
  fields: Readonly<Record<K, NumberField>>,
): readonly (NumberSpec & { readonly name: K })[] =>
  (Object.entries(fields) as [K, NumberField][]).map(([name, field]) => ({ name, ...field }));

/** What is wrong, by the name of the box. */
export type Faults = Readonly<Record<string, string>>;

const shown = (n: number) => String(n).replace("-", "−");

/** What a text in a number box says, in the box's unit; another unit of the same kind may be named. Null = no number. */
export const numberIn = ({ unit, isDifference }: NumberField, text: string): number | null =>
  parseQuantity(text, unit, isDifference);

/** Why a text is not what a number box wants; undefined when it is. */
export function numberFault(spec: NumberField, text: string): string | undefined {
  const value = numberIn(spec, text);
  const unit = spec.unit ? ` ${spec.unit}` : "";
  if (value === null)
    return text.trim() === ""
      ? `Give a number${spec.unit ? `, in ${spec.unit}` : ""}.`
      : `“${text.trim()}” is not a number.`;
  if (spec.isWhole && !Number.isInteger(value)) return "Give a whole number.";
  if (value < spec.min || value > spec.max || (spec.isAboveMin && value === spec.min))
    return `${spec.isAboveMin ? "More than" : "From"} ${shown(spec.min)} to ${shown(spec.max)}${unit}; ${shown(value)} is outside.`;
  return undefined;
}

/** Reads number boxes: the values that are right, and what is wrong with the others. */
export function readNumbers<N extends string>(
  form: FormData,
  specs: readonly (NumberSpec & { readonly name: N })[],
): { readonly values: Readonly<Record<N, number>>; readonly faults: Faults } {
  const values = {} as Record<N, number>;
  const faults: Record<string, string> = {};
  for (const spec of specs) {
    const text = textOf(form, spec.name);
    const fault = numberFault(spec, text);
    if (fault) faults[spec.name] = fault;
    else values[spec.name] = numberIn(spec, text)! + 0; // −0 becomes 0
  }
  return { values, faults };
}

/** Reads number boxes that may be left empty: the values that are there, and what is wrong with the others. */
export function readSomeNumbers<N extends string>(
  specs: readonly (NumberSpec & { readonly name: N })[],
  textIn: (name: N) => string,
): { readonly values: Readonly<Partial<Record<N, number>>>; readonly faults: Faults } {
  const values: Partial<Record<N, number>> = {};
  const faults: Record<string, string> = {};
  for (const spec of specs) {
    const text = textIn(spec.name);
    if (text.trim() === "") continue;
    const fault = numberFault(spec, text);
    if (fault) faults[spec.name] = fault;
    else values[spec.name] = numberIn(spec, text)! + 0; // −0 becomes 0
  }
  return { values, faults };
}

/** The text of a box; "" when it is missing. */
export function textOf(form: FormData, name: string): string {
  const value = form.get(name);
  return typeof value === "string" ? value : "";
}
