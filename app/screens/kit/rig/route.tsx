import { data, redirect } from "react-router";
import { Copies } from "~/components/Copies";
import { textOf } from "~/components/forms/form-numbers";
import { RigForm } from "./RigForm";
import { readRig } from "./rig-form";
import { StorageRefusal } from "~/components/StorageRefusal";
import { CHANNELS, CHANNEL_FACTS, type Rig } from "~/core/exposure";
import type { Edit } from "~/core/crew";
import { loadLibrary, saveAll } from "~/storage/records";
import { newId } from "~/storage/session";
import type { Route } from "./+types/route";
import { keptSearch } from "~/desk/choice";
import { useEdits } from "~/components/forms/use-edits";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const library = await loadLibrary();
  const filters = library.filters.length > 0 ? library.filters : usualFilters();
  if (params.rigId === "new") return { rig: null, filters };
  const rig = library.rigs.find((r) => r.id === params.rigId);
  if (!rig) throw data({ code: "unknownRig" }, { status: 404 });
  return { rig, filters };
}
clientLoader.hydrate = true as const;

/** What a newcomer can tick: one filter a channel with its usual values; stored with the first rig. */
function usualFilters() {
  return CHANNELS.map((channel) => {
    const { centreNm, bandwidthNm } = CHANNEL_FACTS[channel];
    const name =
      channel === "Colour"
        ? "No filter (colour)"
        : channel === "Dual"
          ? "Dual band"
          : bandwidthNm < 20
            ? `${channel} ${bandwidthNm} nm`
            : channel;
    return {
      id: `filter-usual-${channel.toLowerCase()}`,
      data: { name, channel, centreNm, bandwidthNm, transmission: 0.9 },
    };
  });
}

export async function clientAction({ request, params }: Route.ClientActionArgs) {
  const form = await request.formData();
  const rig = readRig(form);
  if (!rig.ok) return data({ faults: rig.error, storage: null }, { status: 400 });
  const library = await loadLibrary();
  const edits: Edit[] = [
    {
      kind: "rig",
      id: params.rigId === "new" ? newId("rig") : params.rigId,
      data: rig.value,
      baseRev: textOf(form, "baseRev") || null,
    },
  ];
  if (library.filters.length === 0)
    edits.push(...usualFilters().map((f) => ({ kind: "filter" as const, id: f.id, data: f.data, baseRev: "latest" })));
  const saved = await saveAll(edits);
  if (!saved.ok) return data({ faults: {}, storage: saved.error.code }, { status: 507 });
  return redirect(`/kit/rigs${keptSearch(new URL(request.url).searchParams)}`);
}

export const meta: Route.MetaFunction = () => [{ title: "Rig · Zenithar" }];

export default function RigRoute({ loaderData, actionData }: Route.ComponentProps) {
  const { rig, filters } = loaderData;
  const { send } = useEdits();
  const settle = (kept: Rig) =>
    rig && send([{ kind: "rig", id: rig.id, data: kept, baseRev: rig.rev, settlesCopies: true }]);
  return (
    <>
      <h1 className="text-headline mb-3">{rig ? rig.data.name : "A new rig"}</h1>
      {actionData?.storage ? <StorageRefusal code={actionData.storage} /> : null}
      {rig ? (
        <Copies
          now={rig.data}
          copies={rig.copies}
          onTake={(copy) => settle(copy.data as Rig)}
          onDismiss={() => settle(rig.data)}
        />
      ) : null}
      <RigForm
        key={rig?.id ?? "new"}
        rig={rig?.data ?? null}
        baseRev={rig?.rev ?? ""}
        filters={filters}
        faults={actionData?.faults ?? {}}
      />
    </>
  );
}
