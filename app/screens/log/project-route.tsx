import { Loom } from "~/components/charts/Loom";
import { Section } from "~/components/ui/Panel";
import { loomOf } from "~/core/ledger";
import { loadLibrary } from "~/storage/records";
import type { Route } from "./+types/project-route";
import { bookByHand, loadLog, LogPage } from "./LogPage";
import { requireContext } from "~/desk/project";

export async function clientLoader({ request, params }: Route.ClientLoaderArgs) {
  const c = requireContext(await loadLibrary(), params.projectId);
  const done = c.contributions.map((x) => x.data);
  return { log: await loadLog(request, params.projectId), cells: loomOf(c.goal.data.channels, c.panels, done) };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ request }: Route.ClientActionArgs) => bookByHand(request);
export const meta: Route.MetaFunction = () => [{ title: "Project log · Zenithar" }];

export default function ProjectLogRoute({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div>
        <LogPage loaded={loaderData.log} answer={actionData} isAll={false} />
      </div>
      <aside>
        <Section title="Collected so far">
          <Loom cells={loaderData.cells} isLarge />
        </Section>
      </aside>
    </div>
  );
}
