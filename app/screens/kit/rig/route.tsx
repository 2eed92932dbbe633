import { refusePage } from "~/desk/page-fault";
import { deskOf } from "~/at-desk";
import { Copies } from "~/components/Copies";
import { WithDraft } from "~/components/forms/drafts";
import { StorageRefusal } from "~/components/StorageRefusal";
import { KIT_PRESETS, rigOfKinds } from "~/desk/kit/start";
import { focusSlopeOf } from "~/desk/plan/live";
import { measuredMoves } from "~/desk/log/focus-hints";
import { usualFilters } from "~/desk/kit/kit";
import { libraryHere } from "~/desk/records/open-library";
import { keptSearch } from "~/desk/sky/choice";
import { useSearchParams } from "react-router";
import type { Route } from "./+types/route";
import { rigAction } from "./action";
import { RigForm } from "./RigForm";

export async function clientLoader({ context, params }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const library = await libraryHere(desk);
  const filters = library.filters.length > 0 ? library.filters : usualFilters();
  if (params.rigId === "new") return { rig: null, filters, moves: [], slope: null };
  const rig = library.rigs.find((r) => r.id === params.rigId);
  if (!rig) refusePage({ code: "unknownRig" });
  return { rig, filters, moves: measuredMoves(library, rig), slope: focusSlopeOf(library, rig.id) };
}
clientLoader.hydrate = true as const;

export const clientAction = ({ context, request, params }: Route.ClientActionArgs) =>
  rigAction(deskOf(context), request, params.rigId);

export const meta: Route.MetaFunction = () => [{ title: "Rig · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function RigRoute({ loaderData, actionData }: Route.ComponentProps) {
  const { rig, filters, moves, slope } = loaderData;
  const [params] = useSearchParams();
  return (
    <>
      <h1 className="text-headline mb-3">{rig ? rig.data.name : "A new rig"}</h1>
      <StorageRefusal fault={actionData?.refusal ?? null} />
      {rig ? <Copies kind="rig" of={rig} /> : null}
      <WithDraft
        key={rig?.id ?? "new"}
        name={`rig ${rig?.id ?? "new"}`}
        rev={rig?.rev ?? ""}
        title={rig ? `the rig ${rig.data.name}` : "a new rig"}
      >
        <RigForm
          rig={rig?.data ?? null}
          baseRev={rig?.rev ?? ""}
          filters={filters}
          faults={actionData && "faults" in actionData ? actionData.faults : {}}
          presets={KIT_PRESETS}
          ofKinds={rigOfKinds}
          moves={moves}
          slope={slope}
          checklistTo={rig ? `/kit/rigs/${rig.id}/checklist${keptSearch(params)}` : null}
        />
      </WithDraft>
    </>
  );
}
