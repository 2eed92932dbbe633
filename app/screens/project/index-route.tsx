import { redirect } from "react-router";
import type { Route } from "./+types/index-route";

export function clientLoader({ request, params }: Route.ClientLoaderArgs) {
  return redirect(`/projects/${params.projectId}/frame${new URL(request.url).search}`);
}

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function ProjectIndex() {
  return null;
}
