import { askEdr } from "~/services/edr-ask";
import { edrOf } from "./edr.server";
import { isStandIn, standInAnswer, troubleOf } from "./stand-in-forecast.server";
import { nowContext } from "./context.server";
import type { Route } from "./+types/forecast-service";

const refuse = (status: number, error: string) => Response.json({ error }, { status });
let attempts = 0;

/** A parameter given once, as a plain number; NaN otherwise: an empty one is not 0°. */
const degreesOf = ([text = "", ...more]: readonly string[]): number =>
  more.length === 0 && /^[+-]?\d{1,3}(?:\.\d{1,12})?$/.test(text) ? Number(text) : NaN;

/** A real service, where the operator has set one up. */
const EDR = edrOf(process.env);

/** The simulated forecast services, the outside world as it ships with the app; and a real one, where there is one. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const url = new URL(request.url);
  const [lat, lon] = ["lat", "lon"].map((name) => degreesOf(url.searchParams.getAll(name))) as [number, number];
  const isReal = EDR !== null && params.sourceId === "edr";
  if (!isReal && !isStandIn(params.sourceId)) return refuse(404, "no such service");
  if (!(Math.abs(lat) <= 90 && Math.abs(lon) <= 180))
    return refuse(400, "give lat from -90 to 90 and lon from -180 to 180, in degrees");
  const nowMs = context.get(nowContext) ?? Date.now();
  if (isReal) {
    const { status, body } = await askEdr(EDR, { lat, lon, nowMs }, request.signal);
    return new Response(body, { status, headers: { "Content-Type": "application/json", "Cache-Control": "no-store" } });
  }
  const answer = standInAnswer(
    params.sourceId,
    { lat, lon, nowMs, attempt: attempts++ % 1000 },
    troubleOf(params.sourceId, process.env["ZENITHAR_SERVICES"]),
  );
  await new Promise<void>((resolve) => {
    const timer = setTimeout(resolve, answer.delayMs);
    request.signal.addEventListener("abort", () => {
      clearTimeout(timer);
      resolve();
    });
  });
  return new Response(answer.body, {
    status: answer.status,
    headers: { "Content-Type": answer.status === 200 ? "application/json" : "text/html", "Cache-Control": "no-store" },
  });
}
