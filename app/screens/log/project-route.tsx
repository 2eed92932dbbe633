import { deskOf } from "~/at-desk";
import { HourWords } from "~/components/HourWords";
import { Loom } from "~/components/charts/Loom";
import { Section } from "~/components/ui/Panel";
import { libraryHere } from "~/desk/records/open-library";
import type { Route } from "./+types/project-route";
import { logAction } from "./action";
import { loadLog } from "./load";
import { LogPage } from "./LogPage";
import { requireContext } from "~/desk/projects/project";

export async function clientLoader({ context, request, params }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const c = requireContext(await libraryHere(desk), params.projectId);
  return { log: await loadLog(desk, request, params.projectId), cells: c.cells };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => logAction(deskOf(context), request);
export const meta: Route.MetaFunction = () => [{ title: "Project log · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function ProjectLogRoute({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div>
        <LogPage loaded={loaderData.log} answer={actionData} isAll={false} />
      </div>
      <aside>
        <Section title="Collected so far">
          <Loom cells={loaderData.cells} isLarge />
          <HourWords of={["exposure", "kept", "counts"]} />
        </Section>
      </aside>
    </div>
  );
}
