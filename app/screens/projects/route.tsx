import { deskOf } from "~/at-desk";
import { HourWords } from "~/components/HourWords";
import { WhenSeen } from "~/components/ui/WhenSeen";
import { Link, useSearchParams } from "react-router";
import { gapWords } from "~/components/FaultPage";
import { Loom } from "~/components/charts/Loom";
import { buttonLook } from "~/components/ui/Button";
import { Empty } from "~/components/ui/Panel";
import { formatMinutes } from "~/core/notation";
import type { Route } from "./+types/route";
import { keptSearch } from "~/desk/sky/choice";
import { libraryHere } from "~/desk/records/open-library";
import { targetNameOf } from "~/desk/sky/targets";
import { contextOf } from "~/desk/projects/project";
import { gapOf } from "~/desk/projects/project-gap";

export async function clientLoader({ context }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const library = await libraryHere(desk);
  const projects = library.projects.map((p) => {
    const c = contextOf(library, p.id);
    if (!c) return { id: p.id, name: p.data.name, view: null, gap: gapOf(library, p.id) };
    return {
      id: p.id,
      name: p.data.name,
      gap: null,
      view: {
        target: targetNameOf(library, p.data.targetId),
        rig: c.rig.data.name,
        place: c.place.data.name,
        panels: c.panels.length,
        cells: c.cells,
        members: new Set(c.contributions.map((x) => x.data.memberId)).size,
      },
    };
  });
  return { projects };
}
clientLoader.hydrate = true as const;

export const meta: Route.MetaFunction = () => [{ title: "Projects · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function ProjectsRoute({ loaderData }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const search = keptSearch(params);
  if (loaderData.projects.length === 0)
    return (
      <Empty>
        <h1 className="text-headline text-ink">Projects</h1>
        <p className="my-3">
          A picture takes many nights. Choose a target and start a project from it: its frame, its hours and its log
          live here.
        </p>
        <Link to={`/targets${search}`} className={buttonLook("main")}>
          Choose a target
        </Link>
      </Empty>
    );
  return (
    <>
      <h1 className="text-headline">Projects</h1>
      <ul className="mt-3 grid gap-x-10 gap-y-7 md:grid-cols-2">
        {loaderData.projects.map(({ id, name, view, gap }) => (
          <li key={id} className="border-rule border-t pt-3">
            <h2 className="text-figure">
              {view ? (
                <Link to={`/projects/${id}/plan${search}`} className="hover:underline">
                  {name}
                </Link>
              ) : (
                name
              )}
            </h2>
            {view ? (
              <>
                <p className="text-soft mb-2">
                  {view.target} · {view.panels === 1 ? "one frame" : `${view.panels} panels`} · {view.rig}, {view.place}
                  {view.members > 1 ? ` · ${view.members} people` : ""}
                </p>
                <WhenSeen heightPx={96}>
                  <Loom cells={view.cells} />
                </WhenSeen>
                <p className="text-note text-soft mt-2">
                  {formatMinutes(view.cells.reduce((s, c) => s + c.keptMin, 0))} kept, counts{" "}
                  {formatMinutes(view.cells.reduce((s, c) => s + c.countedMin, 0))} of{" "}
                  {formatMinutes(view.cells.reduce((s, c) => s + c.goalMin, 0))}
                </p>
              </>
            ) : (
              <p className="text-soft">{gap ? gapWords(gap) : null}</p>
            )}
          </li>
        ))}
      </ul>
      <HourWords of={["kept", "counts"]} />
    </>
  );
}
