import { data, redirect } from "react-router";
import { Copies } from "~/components/Copies";
import { textOf } from "~/components/forms/form-numbers";
import { PlaceForm } from "./PlaceForm";
import { readPlace } from "./place-form";
import { StorageRefusal } from "~/components/StorageRefusal";
import type { Place } from "~/core/night";
import type { Edit } from "~/core/crew";
import { loadLibrary, saveAll } from "~/storage/records";
import { newId, nodeId } from "~/storage/session";
import type { Route } from "./+types/route";
import { skyWorker } from "~/workers/sky";
import { keptSearch } from "~/desk/choice";
import { learntChances } from "~/desk/learnt";
import { useEdits } from "~/components/forms/use-edits";

async function findZone(latitudeDeg: number, longitudeDeg: number): Promise<string | null> {
  const { default: zoneAt } = await import("@photostructure/tz-lookup");
  return zoneAt(latitudeDeg, longitudeDeg) ?? null;
}

const findTowns = (query: string) => skyWorker().towns(query, 8);

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  if (params.placeId === "new") return { place: null, learnt: null };
  const library = await loadLibrary();
  const place = library.places.find((p) => p.id === params.placeId);
  if (!place) throw data({ code: "unknownPlace" }, { status: 404 });
  return { place, learnt: learntChances(library, place) };
}
clientLoader.hydrate = true as const;

export async function clientAction({ request, params }: Route.ClientActionArgs) {
  const form = await request.formData();
  const place = readPlace(form);
  if (!place.ok) return data({ faults: place.error, storage: null }, { status: 400 });
  const id = params.placeId === "new" ? newId("place") : params.placeId;
  const edits: Edit[] = [{ kind: "place", id, data: place.value, baseRev: textOf(form, "baseRev") || null }];
  const library = await loadLibrary();
  if (!library.settings) {
    const memberId = `member-${nodeId()}`;
    edits.push({ kind: "member", id: memberId, data: { name: "Me" }, baseRev: "latest" });
    edits.push({
      kind: "settings",
      id: "settings",
      data: { memberId, placeId: id, rigId: "", lastBackupMs: null },
      baseRev: "latest",
    });
  }
  const saved = await saveAll(edits);
  if (!saved.ok) return data({ faults: {}, storage: saved.error.code }, { status: 507 });
  return redirect(`/kit${keptSearch(new URL(request.url).searchParams)}`);
}

export const meta: Route.MetaFunction = () => [{ title: "Place · Zenithar" }];

export default function PlaceRoute({ loaderData, actionData }: Route.ComponentProps) {
  const { place } = loaderData;
  const { send } = useEdits();
  const settle = (kept: Place) =>
    place && send([{ kind: "place", id: place.id, data: kept, baseRev: place.rev, settlesCopies: true }]);
  return (
    <>
      <h1 className="text-headline mb-3">{place ? place.data.name : "A new place"}</h1>
      {actionData?.storage ? <StorageRefusal code={actionData.storage} /> : null}
      {place ? (
        <Copies
          now={place.data}
          copies={place.copies}
          onTake={(copy) => settle(copy.data as Place)}
          onDismiss={() => settle(place.data)}
        />
      ) : null}
      <PlaceForm
        key={place?.id ?? "new"}
        place={place?.data ?? null}
        baseRev={place?.rev ?? ""}
        faults={actionData?.faults ?? {}}
        learnt={loaderData.learnt}
        findZone={findZone}
        findTowns={findTowns}
      />
    </>
  );
}
