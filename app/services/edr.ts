import type { ForecastSource } from "./source";
import { ServiceRefusal } from "./refusal";

/** A real service may take longer than a stand-in, ms. */
const PATIENCE_MS = 8000;

/** What a page says of the real service that was set up. */
export interface EdrNotice {
  readonly name: string;
  /** As it asks to be named beside its numbers. */
  readonly credit: string;
  /** Where it is asked by the browser itself, which it must allow (CORS); absent = this app's server asks. */
  readonly direct?: { readonly collection: string; readonly parameters: string };
}

type Asks = ForecastSource["ask"];

const throughServer: Asks = async ({ latitudeDeg, longitudeDeg }, signal) => {
  const at = `lat=${latitudeDeg.toFixed(2)}&lon=${longitudeDeg.toFixed(2)}`;
  const response = await fetch(`/services/forecast/edr?${at}`, { signal });
  if (!response.ok) throw new ServiceRefusal(response.status);
  return response.text();
};

const directly =
  ({ name, credit }: EdrNotice, direct: NonNullable<EdrNotice["direct"]>): Asks =>
  async ({ latitudeDeg, longitudeDeg, nowMs }, signal) => {
    const { askEdr } = await import("./edr-ask"); // only a page without its server asks so
    const collection = new URL(direct.collection);
    const service = { name, credit, collection, parameters: direct.parameters, keyHeader: "", key: "" };
    const { status, body } = await askEdr(service, { lat: latitudeDeg, lon: longitudeDeg, nowMs }, signal);
    if (status !== 200) throw new ServiceRefusal(status);
    return body;
  };

/** The real service that was set up, asked through the server or by the browser itself; null where there is none. */
export function realService(text: string | undefined): ForecastSource | null {
  if (!text) return null;
  const notice = JSON.parse(text) as EdrNotice;
  return {
    id: "edr",
    name: notice.name,
    credit: notice.credit,
    isSimulated: false,
    timeoutMs: PATIENCE_MS,
    ask: notice.direct ? directly(notice, notice.direct) : throughServer,
  };
}
