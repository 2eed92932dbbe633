import { surveyFile } from "~/core/survey";
import { isStatic } from "./context.server";
import { surveyAnswer, surveysOf } from "./surveys.server";
import type { Route } from "./+types/survey-service";

const SURVEYS = surveysOf(process.env);
const MAX_AGE_SEC = 7 * 24 * 3600;

/** Pictures of the sky, tile by tile: what the operator set up is asked here, so that a browser talks to this app alone. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const source = isStatic() ? undefined : SURVEYS.find(({ id }) => id === params.surveyId);
  const file = surveyFile(params["*"]);
  if (!source || !file)
    return new Response("Nothing is here.\n", { status: 404, headers: { "Content-Type": "text/plain" } });
  const { status, type, body } = await surveyAnswer(source, file, request.signal);
  return new Response(body, {
    status,
    headers: {
      "Content-Type": type,
      "Cache-Control": status === 200 || status === 404 ? `public, max-age=${MAX_AGE_SEC}` : "no-store",
    },
  });
}
