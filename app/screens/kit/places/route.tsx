import { elevation } from "~/components/measures";
import { deskOf } from "~/at-desk";
import { fixed } from "~/components/numbers";
import { Link, useNavigate, useSearchParams } from "react-router";
import { SkylineDrawing } from "~/components/charts/SkylineDrawing";
import { Button, buttonLook } from "~/components/ui/Button";
import { Empty } from "~/components/ui/Panel";
import { formatDegrees } from "~/core/notation";
import type { Route } from "./+types/route";
import { keptSearch, loadChoice } from "~/desk/sky/choice";
import { contextsOf } from "~/desk/projects/project";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { placesAction } from "./action";
import type { PlacesIntent } from "./intents";

export async function clientLoader({ context, request }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const { library, choice } = await loadChoice(desk, request);
  return {
    places: library.places,
    usedBy: contextsOf(library).map((c) => c.part.data.placeId),
    chosenId: choice.place?.id ?? null,
  };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => placesAction(deskOf(context), request);

export const meta: Route.MetaFunction = () => [{ title: "Places · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function PlacesRoute({ loaderData }: Route.ComponentProps) {
  const { places, usedBy, chosenId } = loaderData;
  const [params] = useSearchParams();
  const { act, refusal, isBusy } = useAct<PlacesIntent>();
  const navigate = useNavigate();
  const use = (id: string) => {
    void act({ act: "use", id });
    void navigate(keptSearch(params, { place: id }));
  };
  return (
    <>
      <header className="flex items-baseline justify-between gap-4">
        <h1 className="text-headline">Places</h1>
        <Link to={`/kit/places/new${keptSearch(params)}`} className={buttonLook("main")}>
          Add a place
        </Link>
      </header>
      <StorageRefusal fault={refusal} />
      {places.length === 0 ? (
        <Empty>Enter where you observe from: coordinates, darkness and what stands in the way.</Empty>
      ) : null}
      <ul className="mt-3 grid gap-x-8 gap-y-6 md:grid-cols-2">
        {places.map((p) => (
          <li key={p.id} className="border-rule border-t pt-3">
            <div className="flex items-baseline justify-between gap-3">
              <h2 className="text-figure">
                <Link to={`/kit/places/${p.id}${keptSearch(params)}`} className="hover:underline">
                  {p.data.name}
                </Link>
              </h2>
              {p.id === chosenId ? (
                <span className="text-note text-lamp">used on every screen</span>
              ) : (
                <button
                  type="button"
                  onClick={() => use(p.id)}
                  className="text-note text-soft underline underline-offset-4"
                >
                  Use this place
                </button>
              )}
            </div>
            <p className="text-soft">
              {formatDegrees(p.data.latitudeDeg, 2)}, {formatDegrees(p.data.longitudeDeg, 2)} ·{" "}
              {elevation(p.data.elevationM)} · {fixed(p.data.skyMagPerArcsec2, 1)} mag/arcsec² · {p.data.timeZone}
            </p>
            <SkylineDrawing
              widthPx={560}
              skyline={p.data.skyline}
              landmarks={p.data.landmarks}
              minAltitudeDeg={p.data.minAltitudeDeg}
              centreDeg={p.data.latitudeDeg < 0 ? 0 : 180}
            />
            {p.copies.length > 0 ? (
              <p className="text-note text-lamp">Changed in two places at once: open it to choose.</p>
            ) : null}
            {usedBy.includes(p.id) ? (
              <p className="text-note text-faint">In use by a project.</p>
            ) : (
              <Button
                look="plain"
                disabled={isBusy}
                onClick={() => void act({ act: "delete", id: p.id, rev: p.rev, data: p.data })}
              >
                Delete
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
