import { isAway } from "~/core/night";
import { deskOf } from "~/at-desk";
import { WithDraft } from "~/components/forms/drafts";
import { StorageRefusal } from "~/components/StorageRefusal";
import { libraryHere } from "~/desk/records/open-library";
import { canSimulate } from "~/desk/sky/weather";
import type { Route } from "./+types/route";
import { rulesAction } from "./action";
import { RulesForm } from "./RulesForm";

export async function clientLoader({ context }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const library = await libraryHere(desk);
  return {
    places: library.places.flatMap((p) => (isAway(p.data) ? [{ id: p.id, name: p.data.name }] : [])),
    canSimulate: canSimulate(desk),
    settings: library.settings ? { rev: library.settings.rev, rules: library.settings.data } : null,
  };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => rulesAction(deskOf(context), request);

export const meta: Route.MetaFunction = () => [{ title: "Rules · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function RulesRoute({ loaderData, actionData }: Route.ComponentProps) {
  const { settings } = loaderData;
  return (
    <>
      <h1 className="text-headline">Rules</h1>
      <p className="text-soft mt-1 max-w-prose">
        How you decide. Every list, page, plan and sheet follows it; a project can differ, and in its budget each
        channel.
      </p>
      <StorageRefusal fault={actionData?.refusal ?? null} />
      {settings === null ? (
        <p className="mt-4">Enter a place first; then the rules can be kept.</p>
      ) : (
        <WithDraft rev={settings.rev} name="rules" title="your rules">
          <RulesForm
            {...settings}
            places={loaderData.places}
            canSimulate={loaderData.canSimulate}
            faults={actionData?.faults ?? {}}
          />
        </WithDraft>
      )}
    </>
  );
}
