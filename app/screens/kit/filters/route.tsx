import type { Faults } from "~/components/forms/form-numbers";
import { WithDraft } from "~/components/forms/drafts";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { libraryHere } from "~/desk/open-library";
import type { Route } from "./+types/route";
import { filtersAction } from "./action";
import { FilterRow } from "./FilterRow";
import type { FiltersIntent } from "./intents";

export async function clientLoader() {
  const library = await libraryHere();
  return { filters: library.filters, inUse: library.rigs.flatMap((r) => r.data.filterIds) };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ request }: Route.ClientActionArgs) => filtersAction(request);

export const meta: Route.MetaFunction = () => [{ title: "Filters · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function FiltersRoute({ loaderData, actionData }: Route.ComponentProps) {
  const { filters, inUse } = loaderData;
  const { act, refusal } = useAct<FiltersIntent>();
  const faults = (id: string): Faults =>
    actionData && "id" in actionData && actionData.id === id ? actionData.faults : {};
  return (
    <>
      <h1 className="text-headline">Filters</h1>
      <p className="text-soft mt-1 max-w-prose">
        Centre and bandwidth decide how much sky a sub sees; the name is what your files carry in their header. A colour
        camera alone counts as a filter of channel Colour. Tick them for a rig under Rigs.
      </p>
      <StorageRefusal fault={refusal ?? actionData?.refusal ?? null} />
      <div className="mt-4">
        {filters.map((f) => (
          <WithDraft key={f.id} rev={f.rev} name={`filter ${f.id}`} title={`the filter ${f.data.name}`}>
            <FilterRow
              id={f.id}
              baseRev={f.rev}
              filter={f.data}
              faults={faults(f.id)}
              isInUse={inUse.includes(f.id)}
              onRemove={() => void act({ act: "delete", id: f.id, rev: f.rev, data: f.data })}
            />
          </WithDraft>
        ))}
        <h2 className="text-section text-soft mt-6">A new filter</h2>
        <WithDraft rev={String(filters.length)} name="filter new" title="a new filter">
          <FilterRow id="new" baseRev="" filter={null} faults={faults("new")} isInUse={false} />
        </WithDraft>
      </div>
    </>
  );
}
