import { KINDS, KIND_WORDS, type Kind } from "~/core/catalog";
import { Field, SelectField } from "./ui/Field";

/** What the list of targets is narrowed to. */
export interface TargetFilter {
  readonly query: string;
  readonly kind: Kind | "";
  readonly size: "any" | "fits" | "mosaic" | "fair";
  readonly minHours: string;
}

export const NO_FILTER: TargetFilter = { query: "", kind: "", size: "any", minHours: "" };

/** Boxes that narrow the list; they combine. */
export function TargetFilters({
  filter,
  onChange,
}: {
  readonly filter: TargetFilter;
  readonly onChange: (filter: TargetFilter) => void;
}) {
  const hours =
    filter.minHours.trim() === "" ||
    (Number(filter.minHours.replace(",", ".")) >= 0 && Number(filter.minHours.replace(",", ".")) <= 24);
  return (
    <div className="my-3 grid grid-cols-2 gap-3 lg:grid-cols-[minmax(0,1.6fr)_1fr_1fr_0.7fr]">
      <Field
        label="Find"
        type="search"
        placeholder="m81, NGC 6960, veil, sh2-132"
        value={filter.query}
        onChange={(e) => onChange({ ...filter, query: e.target.value })}
      />
      <SelectField
        label="Kind"
        value={filter.kind}
        onChange={(e) => onChange({ ...filter, kind: e.target.value as Kind | "" })}
      >
        <option value="">any</option>
        {KINDS.map((k) => (
          <option key={k} value={k}>
            {KIND_WORDS[k]}
          </option>
        ))}
      </SelectField>
      <SelectField
        label="Size in my field"
        value={filter.size}
        onChange={(e) => onChange({ ...filter, size: e.target.value as TargetFilter["size"] })}
      >
        <option value="any">any</option>
        <option value="fair">fills a tenth or more</option>
        <option value="fits">fits one frame</option>
        <option value="mosaic">needs a mosaic</option>
      </SelectField>
      <Field
        label="At least"
        unit="h usable"
        inputMode="decimal"
        value={filter.minHours}
        onChange={(e) => onChange({ ...filter, minHours: e.target.value })}
        fault={hours ? undefined : "0 to 24 h"}
      />
    </div>
  );
}
