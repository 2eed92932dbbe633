import { data } from "react-router";
import { FilterRow } from "./FilterRow";
import { readFilter } from "./filter-form";
import { textOf, type Faults } from "~/components/forms/form-numbers";
import { StorageRefusal } from "~/components/StorageRefusal";
import { loadLibrary, saveAll } from "~/storage/records";
import { newId } from "~/storage/session";
import type { Route } from "./+types/route";
import { useEdits } from "~/components/forms/use-edits";

export async function clientLoader() {
  const library = await loadLibrary();
  return { filters: library.filters, inUse: library.rigs.flatMap((r) => r.data.filterIds) };
}
clientLoader.hydrate = true as const;

export async function clientAction({ request }: Route.ClientActionArgs) {
  const form = await request.formData();
  const id = textOf(form, "id");
  const filter = readFilter(form);
  if (!filter.ok) return data({ id, faults: filter.error, storage: null }, { status: 400 });
  const isNew = id === "new";
  const saved = await saveAll([
    {
      kind: "filter",
      id: isNew ? newId("filter") : id,
      data: filter.value,
      baseRev: isNew ? null : textOf(form, "baseRev"),
    },
  ]);
  const none: Faults = {};
  return saved.ok
    ? data({ id, faults: none, storage: null })
    : data({ id, faults: none, storage: saved.error.code }, { status: 507 });
}

export const meta: Route.MetaFunction = () => [{ title: "Filters · Zenithar" }];

export default function FiltersRoute({ loaderData, actionData }: Route.ComponentProps) {
  const { filters, inUse } = loaderData;
  const { remove } = useEdits();
  const faults = (id: string): Faults => (actionData?.id === id ? actionData.faults : {});
  return (
    <>
      <h1 className="text-headline">Filters</h1>
      <p className="text-soft mt-1 max-w-prose">
        Centre and bandwidth decide how much sky a sub sees; the name is what your files carry in their header. A colour
        camera alone counts as a filter of channel Colour. Tick them for a rig under Rigs.
      </p>
      {actionData?.storage ? <StorageRefusal code={actionData.storage} /> : null}
      <div className="mt-4">
        {filters.map((f) => (
          <FilterRow
            key={`${f.id} ${f.rev}`}
            id={f.id}
            baseRev={f.rev}
            filter={f.data}
            faults={faults(f.id)}
            isInUse={inUse.includes(f.id)}
            onRemove={() => remove(`${f.data.name} deleted.`, [{ kind: "filter", ...f }])}
          />
        ))}
        <h2 className="text-section text-soft mt-6">A new filter</h2>
        <FilterRow
          key={`new ${filters.length}`}
          id="new"
          baseRev=""
          filter={null}
          faults={faults("new")}
          isInUse={false}
        />
      </div>
    </>
  );
}
