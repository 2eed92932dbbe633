import { deskOf, useDesk } from "~/at-desk";
import { Accordion } from "radix-ui";
import { ChevronDown } from "lucide-react";
import { useState, type ReactNode } from "react";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import type { Faults } from "~/components/forms/form-numbers";
import { WithDraft } from "~/components/forms/drafts";
import { useAct } from "~/components/forms/use-act";
import { fixed } from "~/components/numbers";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { CHANNELS, type Filter } from "~/core/exposure";
import { libraryHere } from "~/desk/records/open-library";
import { filtersOf, KIT_PRESETS } from "~/desk/kit/start";
import { theDrafts } from "~/desk/records/kept";
import type { Route } from "./+types/route";
import { filtersAction } from "./action";
import { FilterRow } from "./FilterRow";
import type { FiltersIntent } from "./intents";

export async function clientLoader({ context }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const library = await libraryHere(desk);
  const have = new Set(library.filters.map((f) => f.id));
  return {
    filters: [...library.filters].sort((a, b) => CHANNELS.indexOf(a.data.channel) - CHANNELS.indexOf(b.data.channel)),
    inUse: library.rigs.flatMap((r) => r.data.filterIds),
    /** Sets of which something is not here yet. */
    sets: KIT_PRESETS.filterSets.filter((set) => filtersOf(set).some((f) => !have.has(f.id))),
  };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => filtersAction(deskOf(context), request);

export const meta: Route.MetaFunction = () => [{ title: "Filters · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

const NEW = "new";

export default function FiltersRoute({ loaderData, actionData }: Route.ComponentProps) {
  const desk = useDesk();
  const { filters, inUse, sets } = loaderData;
  const { act, refusal, isBusy } = useAct<FiltersIntent>();
  // What is typed and not saved is open; a new one is where there is nothing else.
  const [open, setOpen] = useState(
    () => filters.find((f) => desk.at(theDrafts).names().includes(`filter ${f.id}`))?.id ?? NEW,
  );
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
      {sets.length > 0 ? (
        <p className="mt-3 flex flex-wrap items-center gap-2">
          <span className="text-note text-soft">Add with usual values:</span>
          {sets.map((set) => (
            <Button key={set.id} disabled={isBusy} onClick={() => void act({ act: "set", id: set.id })}>
              {set.words}
            </Button>
          ))}
        </p>
      ) : null}
      <Accordion.Root type="single" collapsible value={open} onValueChange={setOpen} className="mt-4 max-w-[60rem]">
        {filters.map((f) => (
          <Item key={f.id} value={f.id} head={<FilterHead filter={f.data} isUnused={!inUse.includes(f.id)} />}>
            <WithDraft rev={f.rev} name={`filter ${f.id}`} title={`the filter ${f.data.name}`}>
              <FilterRow
                id={f.id}
                baseRev={f.rev}
                filter={f.data}
                faults={faults(f.id)}
                isInUse={inUse.includes(f.id)}
                onRemove={() => void act({ act: "delete", id: f.id, rev: f.rev, data: f.data })}
              />
            </WithDraft>
          </Item>
        ))}
        <Item value={NEW} head={<span className="text-soft font-serif">A new filter</span>}>
          <WithDraft rev={String(filters.length)} name="filter new" title="a new filter">
            <FilterRow id={NEW} baseRev="" filter={null} faults={faults(NEW)} isInUse={false} />
          </WithDraft>
        </Item>
      </Accordion.Root>
    </>
  );
}

function Item({
  value,
  head,
  children,
}: {
  readonly value: string;
  readonly head: ReactNode;
  readonly children: ReactNode;
}) {
  return (
    <Accordion.Item value={value} className="border-rule border-t">
      <Accordion.Header asChild>
        <h2 className="font-sans">
          <Accordion.Trigger className="hover:bg-raised group flex min-h-11 w-full items-center justify-between gap-3 px-1 text-left">
            {head}
            <ChevronDown
              size={16}
              strokeWidth={1.6}
              aria-hidden="true"
              className="text-faint shrink-0 transition-transform group-data-[state=open]:rotate-180"
            />
          </Accordion.Trigger>
        </h2>
      </Accordion.Header>
      <Accordion.Content className="pb-3">{children}</Accordion.Content>
    </Accordion.Item>
  );
}

/** A filter in one line: its channel with its colour, what it lets through, how thick it is. */
function FilterHead({ filter, isUnused }: { readonly filter: Filter; readonly isUnused: boolean }) {
  const thick = filter.thicknessMm ? ` · ${fixed(filter.thicknessMm, 1)} mm thick` : "";
  return (
    <span className="grid flex-1 grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4 sm:grid-cols-[minmax(0,14rem)_5rem_minmax(0,1fr)]">
      <span className="flex items-center gap-2 font-semibold">
        <span
          className="h-3 w-3 shrink-0 rounded-[3px]"
          style={{ background: CHANNEL_COLOUR[filter.channel] }}
          aria-hidden="true"
        />
        {filter.name}
      </span>
      <span>{filter.channel}</span>
      <span className="text-note text-soft col-span-2 sm:col-span-1">
        {fixed(filter.centreNm, filter.bandwidthNm < 20 ? 1 : 0)} ±{" "}
        {fixed(filter.bandwidthNm / 2, filter.bandwidthNm < 20 ? 1 : 0)} nm, lets through{" "}
        {fixed(100 * filter.transmission)} %{thick}
        {isUnused ? <span className="text-faint"> · in no rig</span> : null}
      </span>
    </span>
  );
}
