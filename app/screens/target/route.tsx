import { deskOf } from "~/at-desk";
import { Form, Link, useNavigation, useSearchParams } from "react-router";
import { StorageRefusal } from "~/components/StorageRefusal";
import { TargetFacts } from "./TargetFacts";
import { entryFacts, entryTitle } from "~/components/words/target-words";
import { counted } from "~/components/numbers";
import { SkyPicture } from "~/components/SkyPicture";
import { firstLayout } from "~/core/plan";
import { Button } from "~/components/ui/Button";
import type { Route } from "./+types/route";
import { keptSearch } from "~/desk/sky/choice";
import { TargetAside } from "./TargetAside";
import { TargetChoices } from "./TargetChoices";
import { TargetEvidence } from "./TargetEvidence";
import { targetAction } from "./action";
import { loadTarget } from "./load";

export const clientLoader = ({ context, request, params }: Route.ClientLoaderArgs) =>
  loadTarget(deskOf(context), request, params.targetId);
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request, params }: Route.ClientActionArgs) =>
  targetAction(deskOf(context), request, params.targetId);
export const meta: Route.MetaFunction = ({ params }) => [{ title: `${params.targetId} · Zenithar` }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function TargetRoute({ loaderData, actionData }: Route.ComponentProps) {
  const { entry, ownId, view, night, projects, isWished } = loaderData;
  const [params] = useSearchParams();
  const navigation = useNavigation();
  const search = keptSearch(params, { low: params.get("low") ?? "" });
  const picture = {
    entry,
    frame: view ? firstLayout(entry, view.optics) : null,
    label: `${entryTitle(entry)}${view ? ", and the frame a project would begin with" : ""}`,
  };
  return (
    <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div>
        <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
          <div>
            <p className="text-note text-soft">{entryFacts(entry)}</p>
            <h1 className="text-headline">{entryTitle(entry)}</h1>
          </div>
          <Form method="post">
            <Button look="main" type="submit" disabled={!view || navigation.state === "submitting"}>
              Start a project
            </Button>
            {view ? (
              <p className="text-note text-soft mt-1 max-w-56">
                with {view.rigName}, {view.place.name}
              </p>
            ) : null}
          </Form>
        </div>
        <SkyPicture {...picture} sizePx={200} className="mt-2 lg:hidden" />
        {entry.curated?.framing ? <p className="text-soft mt-1 max-w-[65ch]">{entry.curated.framing}</p> : null}
        <p className="mt-1 flex flex-wrap gap-x-5">
          <Link
            to={`/targets/${encodeURIComponent(entry.id)}/finder${search}`}
            className="min-h-6 underline underline-offset-4"
          >
            Find it by stars
          </Link>
          <Form method="post">
            <input type="hidden" name="act" value={isWished ? "unwish" : "wish"} />
            <button type="submit" className="min-h-6 underline underline-offset-4">
              {isWished ? "Take it off the wish list" : "Put it on the wish list"}
            </button>
          </Form>
          {ownId ? (
            <Link to={`/targets/own/${ownId}${search}`} className="min-h-6 underline underline-offset-4">
              Change this target
            </Link>
          ) : null}
        </p>
        <StorageRefusal fault={actionData?.refusal ?? null} />
        {view ? (
          <>
            <TargetEvidence view={view} night={night} />
            <TargetChoices view={view} />
          </>
        ) : (
          <p className="text-soft mt-6">
            <Link to="/start" className="underline underline-offset-4">
              Say where you observe from, and with what
            </Link>
            , and its night is worked out.
          </p>
        )}
      </div>
      <aside className="space-y-4">
        <figure className="hidden lg:block">
          <SkyPicture {...picture} sizePx={336} />
          {view ? (
            <figcaption className="text-note text-soft mt-1">
              The frame a project would begin with: {view.rigName}
              {view.panels > 1 ? `, ${counted(view.panels, "panel")}` : ""}
            </figcaption>
          ) : null}
        </figure>
        <TargetFacts
          {...(view
            ? {
                hours: {
                  picture: view.picture,
                  panels: view.panels,
                  sameDepth: view.sameDepth,
                  moonShare: view.moonShare,
                },
              }
            : {})}
          entry={entry}
          {...(view
            ? {
                frame: {
                  widthArcmin: view.optics.planeWidthArcmin,
                  heightArcmin: view.optics.planeHeightArcmin,
                  arcsecPerPx: view.optics.pixelScaleArcsecPerPx,
                  rigName: view.rigName,
                },
              }
            : {})}
        />
        {projects.map((p) => (
          <Link
            key={p.id}
            to={`/projects/${p.id}/frame${search}`}
            className="block min-h-6 underline underline-offset-4"
          >
            Your project: {p.name}
          </Link>
        ))}
        {view ? <TargetAside view={view} search={search} /> : null}
      </aside>
    </div>
  );
}
