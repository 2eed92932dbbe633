import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { newProfile, openBrowser, hands, startApp, type RunningApp } from "./browser";

/** A small stand-in of a service by OGC API - Environmental Data Retrieval, in several moods. */
type Mood = "fine" | "late" | "partial" | "units" | "html" | "huge" | "moved" | "down" | "cut";

const EVENING = Date.parse("2026-12-05T16:00:00Z");
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

describe("real weather, where the operator has set a service up", () => {
  let mood: Mood = "fine";
  const asked: { readonly url: URL; readonly key: string }[] = [];
  let service: Server;
  let elsewhere = 0;
  let app: RunningApp;
  const profile = newProfile();
  const answer = (req: IncomingMessage, res: ServerResponse) => {
    const url = new URL(req.url ?? "/", "http://127.0.0.1");
    if (url.pathname === "/elsewhere") {
      elsewhere++;
      res.end("{}");
      return;
    }
    asked.push({ url, key: String(req.headers["x-key"] ?? "") });
    const [, lon, lat] = /POINT\(([-\d.]+) ([-\d.]+)\)/.exec(url.searchParams.get("coords") ?? "") ?? [];
    const body = JSON.stringify(coverageOf(mood, Number(lon), Number(lat)));
    const headers = { "content-type": "application/prs.coverage+json", "last-modified": new Date(EVENING - 4 * 3_600_000).toUTCString() }; // prettier-ignore
    if (mood === "late") return; // and never answers
    if (mood === "moved") res.writeHead(302, { location: "/elsewhere" }).end();
    else if (mood === "down") res.writeHead(503).end("busy");
    else if (mood === "html") res.writeHead(200, { "content-type": "text/html" }).end("<html>log in</html>");
    else if (mood === "huge") res.writeHead(200, headers).end(`${body}${" ".repeat(3_000_000)}`);
    else if (mood === "cut") res.writeHead(200, headers).end(body.slice(0, 900));
    else res.writeHead(200, headers).end(body);
  };
  beforeAll(async () => {
    service = createServer(answer);
    await new Promise<void>((done) => service.listen(0, "127.0.0.1", done));
    const { port } = service.address() as AddressInfo;
    app = await startApp({
      ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z",
      ZENITHAR_EDR_URL: `http://127.0.0.1:${port}/collections/forecast`,
      ZENITHAR_EDR_NAME: "Hill station model",
      ZENITHAR_EDR_CREDIT: "Data by the Hill station, CC BY 4.0",
      ZENITHAR_EDR_KEY: "a secret",
      ZENITHAR_EDR_KEY_HEADER: "x-key",
      ZENITHAR_OFFLINE: "off",
    });
  });
  afterAll(async () => {
    await app.stop();
    service.closeAllConnections();
    await new Promise((done) => service.close(done));
    profile.remove();
  });
  const ask = async (as: Mood, lat = "43.6204", lon = "1.9312") => {
    mood = as;
    const response = await fetch(`${app.url}/services/forecast/edr?lat=${lat}&lon=${lon}`);
    return { status: response.status, text: await response.text() };
  };

  it("is asked for a place to a hundredth of a degree, with its key, and answers in this app's own form", async () => {
    const { status, text } = await ask("fine");
    expect(status).toBe(200);
    const forecast = JSON.parse(text) as Record<string, unknown>;
    expect(forecast).toMatchObject({
      format: "zenithar-forecast",
      source: { id: "edr", name: "Hill station model", credit: "Data by the Hill station, CC BY 4.0" },
      place: { latitude: 43.62, longitude: 1.93 },
      issued: "2026-12-05T12:00:00.000Z",
      units: { air_temperature: "K", wind_speed: "km h-1" },
      leftOut: [{ variable: "air_pressure_at_mean_sea_level", why: "not used" }],
    });
    const { url, key } = asked.at(-1)!;
    expect(url.pathname).toBe("/collections/forecast/position");
    expect(Object.fromEntries(url.searchParams)).toEqual({ coords: "POINT(1.93 43.62)", datetime: "2026-12-05T16:00:00Z/2026-12-09T16:00:00Z", f: "CoverageJSON" }); // prettier-ignore
    expect(key).toBe("a secret");
  });

  it("says what is wrong with late, broken, huge and moved answers, follows nobody elsewhere, and tells no secret", async () => {
    const errorOf = async (as: Mood) => {
      const { status, text } = await ask(as);
      expect(text).not.toContain("a secret");
      return `${status} ${(JSON.parse(text) as { error: string }).error}`;
    };
    expect(await errorOf("down")).toBe("502 the forecast service answered 503");
    expect(await errorOf("html")).toContain("502 the forecast service’s answer does not read");
    expect(await errorOf("cut")).toContain("502 the forecast service’s answer does not read");
    expect(await errorOf("huge")).toBe("502 the forecast service sent more than 2 MB");
    expect(await errorOf("moved")).toBe("502 the forecast service cannot be reached");
    expect(elsewhere).toBe(0);
    expect(await errorOf("late")).toBe("504 the forecast service took too long");
    expect((await ask("fine", "95")).status).toBe(400);
  });

  it("shows beside the stand-ins with its age and its credit, named as it is, and says what of it was left out", async () => {
    mood = "fine";
    const driver = await openBrowser(profile.path);
    const me = hands(driver);
    try {
      await driver.get(app.url);
      await me.see("Hill station model");
      await me.see("Data by the Hill station, CC BY 4.0");
      await me.see("issued");
      await me.see("Tern coastal model, simulated");
      expect(await me.text()).toMatch(/Hill station model[\s\S]{0,200}issued \S* ?13:00, 5 h old/);
      expect(await driver.executeScript("return document.documentElement.outerHTML.includes('a secret')")).toBe(false);
      for (const as of ["partial", "units", "late"] as const) {
        mood = as;
        await me.press("Ask again");
        if (as === "units") {
          await me.press("2 left out");
          await me.see("air temperature: unit “furlong” is not known here, left out");
          await driver.actions().sendKeys(Key.ESCAPE).perform();
        } else await me.see("Go, from");
      }
    } finally {
      await driver.quit();
    }
  });
});
