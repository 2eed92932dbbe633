import { parseNumber } from "~/core/notation";

/** A number box: its name in the form, what it is called, its unit and the range it must lie in. */
export interface NumberSpec {
  readonly name: string;
  readonly label: string;
  readonly unit?: string;
  readonly min: number;
  readonly max: number;
  readonly isWhole?: boolean;
  /** The lowest value itself is refused: "more than 0". */
  readonly isAboveMin?: boolean;
  readonly hint?: string;
  readonly isOptional?: boolean;
}

/** What is wrong, by the name of the box. */
export type Faults = Readonly<Record<string, string>>;

const shown = (n: number) => String(n).replace("-", "−");

/** Why a text is not what a number box wants; undefined when it is. */
export function numberFault(spec: NumberSpec, text: string): string | undefined {
  const value = parseNumber(text);
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
    else values[spec.name] = parseNumber(text)! + 0; // −0 becomes 0
  }
  return { values, faults };
}

/** The text of a box; "" when it is missing. */
export function textOf(form: FormData, name: string): string {
  const value = form.get(name);
  return typeof value === "string" ? value : "";
}
