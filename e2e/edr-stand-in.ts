import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";

/** A small stand-in of a service by OGC API - Environmental Data Retrieval, in several moods. */
export type Mood = "fine" | "late" | "partial" | "units" | "html" | "huge" | "moved" | "down" | "cut";

/** When its answers begin. */
export const EVENING = Date.parse("2026-12-05T16:00:00Z");
const parameter = (name: string, unit: string) => ({ type: "Parameter", observedProperty: { id: `http://vocab.nerc.ac.uk/standard_name/${name}/` }, unit: { symbol: { type: "http://www.opengis.net/def/uom/UCUM/", value: unit } } }); // prettier-ignore

function coverageOf(mood: Mood, longitude: number, latitude: number) {
  const t = Array.from({ length: 60 }, (_, i) => new Date(EVENING + i * 3_600_000).toISOString());
  const range = (of: (i: number) => number | null) => ({ type: "NdArray", dataType: "float", axisNames: ["t"], shape: [t.length], values: t.map((_, i) => of(i)) }); // prettier-ignore
  const all: Record<string, [string, string, (i: number) => number | null]> = {
    low: ["low_type_cloud_area_fraction", "%", () => 10],
    mid: ["medium_type_cloud_area_fraction", "%", () => 0],
    high: ["high_type_cloud_area_fraction", "%", (i) => (i > 6 ? 60 : 5)],
    t2m: ["air_temperature", mood === "units" ? "furlong" : "K", () => 274.15],
    wind: ["wind_speed", "km/h", () => 7.2],
    pressure: ["air_pressure_at_mean_sea_level", "Pa", () => 101_500],
  };
  const kept = Object.entries(all).filter(([key]) => mood !== "partial" || key === "low" || key === "t2m");
  return {
    type: "Coverage",
    domain: { type: "Domain", domainType: "PointSeries", axes: { x: { values: [longitude] }, y: { values: [latitude] }, t: { values: t } } }, // prettier-ignore
    parameters: Object.fromEntries(kept.map(([key, [name, unit]]) => [key, parameter(name, unit)])),
    ranges: Object.fromEntries(kept.map(([key, [, , of]]) => [key, range(mood === "partial" ? (i) => (i < 8 ? of(i) : null) : of)])), // prettier-ignore
  };
}

/** A service that is asked, in the mood it was put into. */
export interface EdrStandIn {
  readonly collection: string;
  readonly asked: readonly { readonly url: URL; readonly key: string }[];
  /** How often it was followed to another address. */
  readonly elsewhere: () => number;
  setMood(mood: Mood): void;
  stop(): Promise<void>;
}

/** Starts it; `letsIn` = pages of any origin may ask it themselves. */
export async function startEdr(letsIn = false): Promise<EdrStandIn> {
  let mood: Mood = "fine";
  let elsewhere = 0;
  const asked: { readonly url: URL; readonly key: string }[] = [];
  const answer = (req: IncomingMessage, res: ServerResponse) => {
    const url = new URL(req.url ?? "/", "http://127.0.0.1");
    if (letsIn) res.setHeader("access-control-allow-origin", "*");
    if (url.pathname === "/elsewhere") {
      elsewhere++;
      res.end("{}");
      return;
    }
    asked.push({ url, key: String(req.headers["x-key"] ?? "") });
    const [, lon, lat] = /POINT\(([-\d.]+) ([-\d.]+)\)/.exec(url.searchParams.get("coords") ?? "") ?? [];
    const body = JSON.stringify(coverageOf(mood, Number(lon), Number(lat)));
    const headers = {
      "content-type": "application/prs.coverage+json",
      "last-modified": new Date(EVENING - 4 * 3_600_000).toUTCString(),
    };
    if (mood === "late") return; // and never answers
    if (mood === "moved") res.writeHead(302, { location: "/elsewhere" }).end();
    else if (mood === "down") res.writeHead(503).end("busy");
    else if (mood === "html") res.writeHead(200, { "content-type": "text/html" }).end("<html>log in</html>");
    else if (mood === "huge") res.writeHead(200, headers).end(`${body}${" ".repeat(3_000_000)}`);
    else if (mood === "cut") res.writeHead(200, headers).end(body.slice(0, 900));
    else res.writeHead(200, headers).end(body);
  };
  const service = createServer(answer);
  await new Promise<void>((done) => service.listen(0, "127.0.0.1", done));
  return {
    collection: `http://127.0.0.1:${(service.address() as AddressInfo).port}/collections/forecast`,
    asked,
    elsewhere: () => elsewhere,
    setMood: (next) => (mood = next),
    async stop() {
      service.closeAllConnections();
      await new Promise((done) => service.close(done));
    },
  };
}
