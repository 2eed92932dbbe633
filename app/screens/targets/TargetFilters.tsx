import { useState } from "react";
import { KINDS, KIND_WORDS, type Kind } from "~/core/catalog";
import { Field, SelectField } from "~/components/ui/Field";
import { ORDERS, type Order, type TargetFilter } from "./lines";

const ORDER_WORDS: Readonly<Record<Order, string>> = {
  overall: "what suits best",
  usable: "most usable time",
  worth: "most worth this night",
  season: "closing soonest",
  nights: "fewest nights to finish",
  fill: "largest in my field",
  brightness: "brightest against my sky",
  name: "designation",
};

/** The lowest altitudes people swear by. "" is the place's own. */
export const SCHOOLS = ["", "30", "35", "10"] as const;
export type School = (typeof SCHOOLS)[number];

/** Boxes that narrow and order the list; they combine. */
export function TargetFilters({
  filter,
  onChange,
  order,
  onOrder,
  school,
  placeMinDeg,
  onSchool,
}: {
  readonly filter: TargetFilter;
  readonly onChange: (filter: TargetFilter) => void;
  readonly order: Order;
  readonly onOrder: (order: Order) => void;
  readonly school: School;
  readonly placeMinDeg: number;
  readonly onSchool: (school: School) => void;
}) {
  const minHours = Number(filter.minHours.replace(",", "."));
  const isHours = filter.minHours.trim() === "" || (minHours >= 0 && minHours <= 24);
  const [isOpen, setOpen] = useState(false); // on narrow windows; wide ones show all
  const inUse = [
    filter.season !== "any",
    filter.kind !== "",
    filter.light !== "any",
    filter.size !== "any",
    filter.minHours.trim() !== "",
    school !== "",
  ].filter(Boolean).length;
  const set = <K extends keyof TargetFilter>(key: K, value: TargetFilter[K]) => onChange({ ...filter, [key]: value });
  return (
    <div className="my-3 grid grid-cols-2 gap-3 lg:grid-cols-4">
      <Field
        label="Find"
        type="search"
        placeholder="m81, veil, sh2-132, 20h50m +31°"
        value={filter.query}
        onChange={(e) => set("query", e.target.value)}
      />
      <SelectField label="Order" value={order} onChange={(e) => onOrder(e.target.value as Order)}>
        {ORDERS.map((o) => (
          <option key={o} value={o}>
            {ORDER_WORDS[o]}
          </option>
        ))}
      </SelectField>
      <button
        type="button"
        className="text-note text-soft col-span-2 min-h-6 text-left underline underline-offset-4 sm:hidden"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        {isOpen ? "Fewer ways to narrow it down" : `Narrow it down${inUse > 0 ? ` (${inUse} in use)` : ""}`}
      </button>
      <div className={isOpen ? "contents" : "hidden sm:contents"}>
        <SelectField label="Lowest altitude" value={school} onChange={(e) => onSchool(e.target.value as School)}>
          <option value="">{placeMinDeg}°, as my place says</option>
          <option value="30">30° or higher</option>
          <option value="35">35°: bright sky</option>
          <option value="10">take what there is</option>
        </SelectField>
        <SelectField
          label="Season"
          value={filter.season}
          onChange={(e) => set("season", e.target.value as TargetFilter["season"])}
        >
          <option value="any">any</option>
          <option value="closing">closing within 6 weeks</option>
          <option value="enough">long enough to finish</option>
        </SelectField>
        <SelectField label="Kind" value={filter.kind} onChange={(e) => set("kind", e.target.value as Kind | "")}>
          <option value="">any</option>
          {KINDS.map((k) => (
            <option key={k} value={k}>
              {KIND_WORDS[k]}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Light"
          value={filter.light}
          onChange={(e) => set("light", e.target.value as TargetFilter["light"])}
        >
          <option value="any">any</option>
          <option value="lines">lines: tolerates moonlight better</option>
          <option value="broad">continuous: wants it dark</option>
        </SelectField>
        <SelectField
          label="Size in my field"
          value={filter.size}
          onChange={(e) => set("size", e.target.value as TargetFilter["size"])}
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
          onChange={(e) => set("minHours", e.target.value)}
          fault={isHours ? undefined : "0 to 24 h"}
        />
      </div>
    </div>
  );
}
