import { deskOf } from "~/at-desk";
import { fixed } from "~/components/numbers";
import { Link, useNavigate, useSearchParams } from "react-router";
import { Button, buttonLook } from "~/components/ui/Button";
import { Empty } from "~/components/ui/Panel";
import { CameraPicture } from "~/components/kit/KindPicture";
import { opticsOf } from "~/core/framing";
import type { Route } from "./+types/route";
import { keptSearch, loadChoice } from "~/desk/sky/choice";
import { contextsOf } from "~/desk/projects/project";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { rigsAction } from "./action";
import type { RigsIntent } from "./intents";

export async function clientLoader({ context, request }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const { library, choice } = await loadChoice(desk, request);
  const filterName = new Map(library.filters.map((f) => [f.id, f.data.name]));
  const rigs = library.rigs.map((r) => ({
    ...r,
    optics: opticsOf(r.data),
    filters: r.data.filterIds.map((id) => filterName.get(id) ?? "?").join(", "),
  }));
  return {
    rigs,
    usedBy: contextsOf(library).map((c) => c.part.data.rigId),
    chosenId: choice.rig?.id ?? null,
  };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => rigsAction(deskOf(context), request);

export const meta: Route.MetaFunction = () => [{ title: "Rigs · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function RigsRoute({ loaderData }: Route.ComponentProps) {
  const { rigs, usedBy, chosenId } = loaderData;
  const [params] = useSearchParams();
  const { act, refusal, isBusy } = useAct<RigsIntent>();
  const navigate = useNavigate();
  const use = (id: string) => {
    void act({ act: "use", id });
    void navigate(keptSearch(params, { rig: id }));
  };
  return (
    <>
      <header className="flex items-baseline justify-between gap-4">
        <h1 className="text-headline">Rigs</h1>
        <Link to={`/kit/rigs/new${keptSearch(params)}`} className={buttonLook("main")}>
          Add a rig
        </Link>
      </header>
      <StorageRefusal fault={refusal} />
      {rigs.length === 0 ? (
        <Empty>
          A rig is a telescope or lens with its camera, filters and mount. Everything else computes from it.
        </Empty>
      ) : null}
      <ul className="mt-3 grid gap-x-8 gap-y-6 md:grid-cols-2">
        {rigs.map((r) => (
          <li key={r.id} className="border-rule border-t pt-3">
            <div className="flex items-baseline justify-between gap-3">
              <h2 className="text-figure">
                <Link to={`/kit/rigs/${r.id}${keptSearch(params)}`} className="hover:underline">
                  {r.data.name}
                </Link>
              </h2>
              {r.id === chosenId ? (
                <span className="text-note text-lamp">used on every screen</span>
              ) : (
                <button
                  type="button"
                  onClick={() => use(r.id)}
                  className="text-note text-soft underline underline-offset-4"
                >
                  Use this rig
                </button>
              )}
            </div>
            <p>
              {fixed(r.optics.focalLengthMm)} mm f/{fixed(r.optics.focalRatio, 1)} · {fixed(r.optics.fieldWidthDeg, 2)}°
              × {fixed(r.optics.fieldHeightDeg, 2)}° · {fixed(r.optics.pixelScaleArcsecPerPx, 2)} ″/px
            </p>
            <p className="text-soft flex items-center gap-2">
              <CameraPicture
                cooled={r.data.isCooled}
                widthPx={r.data.sensor.widthPx}
                heightPx={r.data.sensor.heightPx}
                pixelUm={r.data.sensor.pixelPitchUm}
                isColour={r.data.isColour}
              />
              <span>
                {r.data.isColour ? "Colour" : "Mono"}, {r.data.sensor.widthPx} × {r.data.sensor.heightPx} of{" "}
                {r.data.sensor.pixelPitchUm} µm · {r.filters}
              </span>
            </p>
            {(r.data.typical ?? []).length > 0 ? (
              <p className="text-note text-faint">Some of its values are typical of its class, not your own yet.</p>
            ) : null}
            {r.copies.length > 0 ? (
              <p className="text-note text-lamp">Changed in two places at once: open it to choose.</p>
            ) : null}
            <Button
              look="plain"
              disabled={isBusy}
              aria-label={`Copy ${r.data.name}`}
              onClick={() => void act({ act: "copy", data: r.data })}
            >
              Copy
            </Button>{" "}
            {usedBy.includes(r.id) ? (
              <span className="text-note text-faint">In use by a project.</span>
            ) : (
              <Button
                look="plain"
                disabled={isBusy}
                onClick={() => void act({ act: "delete", id: r.id, rev: r.rev, data: r.data })}
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
