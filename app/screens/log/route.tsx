import type { Route } from "./+types/route";
import { logAction } from "./action";
import { loadLog } from "./load";
import { LogPage } from "./LogPage";

export const clientLoader = ({ request }: Route.ClientLoaderArgs) => loadLog(request, null);
clientLoader.hydrate = true as const;
export const clientAction = ({ request }: Route.ClientActionArgs) => logAction(request);
export const meta: Route.MetaFunction = () => [{ title: "Log · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function LogRoute({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <>
      <h1 className="text-headline mb-3">Log</h1>
      <LogPage loaded={loaderData} answer={actionData} isAll />
    </>
  );
}
