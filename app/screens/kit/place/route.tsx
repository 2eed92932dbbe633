import { refusePage } from "~/desk/page-fault";
import { useCallback } from "react";
import { deskOf, useDesk } from "~/at-desk";
import { Copies } from "~/components/Copies";
import { WithDraft } from "~/components/forms/drafts";
import { StorageRefusal } from "~/components/StorageRefusal";
import { learntChances } from "~/desk/sky/learnt";
import { libraryHere } from "~/desk/records/open-library";
import { KIT_PRESETS, zoneAt } from "~/desk/kit/start";
import type { Route } from "./+types/route";
import { placeAction } from "./action";
import { PlaceForm } from "./PlaceForm";

export async function clientLoader({ context, params }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  if (params.placeId === "new") return { place: null, learnt: null };
  const library = await libraryHere(desk);
  const place = library.places.find((p) => p.id === params.placeId);
  if (!place) refusePage({ code: "unknownPlace" });
  return { place, learnt: learntChances(library, place) };
}
clientLoader.hydrate = true as const;

export const clientAction = ({ context, request, params }: Route.ClientActionArgs) =>
  placeAction(deskOf(context), request, params.placeId);

export const meta: Route.MetaFunction = () => [{ title: "Place · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function PlaceRoute({ loaderData, actionData }: Route.ComponentProps) {
  const desk = useDesk();
  const findTowns = useCallback((query: string) => desk.workers.sky.towns(query, 8), [desk]);
  const { place } = loaderData;
  return (
    <>
      <h1 className="text-headline mb-3">{place ? place.data.name : "A new place"}</h1>
      <StorageRefusal fault={actionData?.refusal ?? null} />
      {place ? <Copies kind="place" of={place} /> : null}
      <WithDraft
        key={place?.id ?? "new"}
        name={`place ${place?.id ?? "new"}`}
        rev={place?.rev ?? ""}
        title={place ? `the place ${place.data.name}` : "a new place"}
      >
        <PlaceForm
          place={place?.data ?? null}
          baseRev={place?.rev ?? ""}
          faults={actionData && "faults" in actionData ? actionData.faults : {}}
          learnt={loaderData.learnt}
          findZone={zoneAt}
          findTowns={findTowns}
          presets={KIT_PRESETS}
        />
      </WithDraft>
    </>
  );
}
