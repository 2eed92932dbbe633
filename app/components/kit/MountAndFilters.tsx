import { SelectField } from "~/components/ui/Field";
import type { KitPresets } from "~/core/exposure";
import { filterSetsFor, usualFiltersOf, usualMountOf, type KitOfKinds, type TypedKit } from "./typed-kit";

/** What goes under the optics and before the camera: the usual ones of their kinds until somebody chooses others. */
export function MountAndFilters({
  presets,
  typed,
  kit,
  filtersHint,
  onChoose,
}: {
  readonly presets: KitPresets;
  readonly typed: TypedKit;
  readonly kit: KitOfKinds;
  readonly filtersHint?: string;
  readonly onChoose: (change: Partial<TypedKit>) => void;
}) {
  const named = (kinds: readonly { readonly id: string; readonly words: string }[]) =>
    kinds.map((k) => (
      <option key={k.id} value={k.id}>
        {k.words}
      </option>
    ));
  return (
    <>
      <SelectField
        label="Mount"
        value={typed.mount || usualMountOf(kit.optics.kind)}
        onChange={(e) => onChoose({ mount: e.target.value })}
      >
        {named(presets.mounts)}
      </SelectField>
      <SelectField
        label="Filters"
        value={typed.filters || usualFiltersOf(kit.isColour)}
        hint={filtersHint}
        onChange={(e) => onChoose({ filters: e.target.value })}
      >
        {named(filterSetsFor(presets, kit.isColour))}
      </SelectField>
    </>
  );
}
