import { deskOf } from "~/at-desk";
import type { Route } from "./+types/route";
import { logAction } from "./action";
import { loadLog } from "./load";
import { LogPage } from "./LogPage";

export const clientLoader = ({ context, request }: Route.ClientLoaderArgs) => loadLog(deskOf(context), request, null);
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => logAction(deskOf(context), request);
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
