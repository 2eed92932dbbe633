import { Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { startEdr, type EdrStandIn, type Mood } from "./edr-stand-in";
import { hands, newProfile, openBrowser, type RunningApp, startApp, textOf, WAIT_MS } from "./browser";

describe("real weather, where the operator has set a service up", () => {
  let service: EdrStandIn;
  let app: RunningApp;
  const profile = newProfile();
  beforeAll(async () => {
    service = await startEdr();
    app = await startApp({
      ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z",
      ZENITHAR_EDR_URL: service.collection,
      ZENITHAR_EDR_NAME: "Hill station model",
      ZENITHAR_EDR_CREDIT: "Data by the Hill station, CC BY 4.0",
      ZENITHAR_EDR_KEY: "a secret",
      ZENITHAR_EDR_KEY_HEADER: "x-key",
      ZENITHAR_OFFLINE: "off",
    });
  });
  afterAll(async () => {
    await app.stop();
    await service.stop();
    profile.remove();
  });
  const ask = async (as: Mood, lat = "43.6204", lon = "1.9312") => {
    service.setMood(as);
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
    const { url, key } = service.asked.at(-1)!;
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
    expect(service.elsewhere()).toBe(0);
    expect(await errorOf("late")).toBe("504 the forecast service took too long");
    expect((await ask("fine", "95")).status).toBe(400);
  });

  it("shows beside the stand-ins with its age and its credit, named as it is, and says what of it was left out", async () => {
    service.setMood("fine");
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
        service.setMood(as);
        await me.press("Ask again");
        if (as === "units") {
          // What is opened while the answer is on its way is still of the one before.
          const isTold = async () => {
            await me.press("2 left out");
            await driver.sleep(400);
            const page = await textOf(driver, "body");
            if (page.includes("unit “furlong” is not known here, left out")) return true;
            await driver.actions().sendKeys(Key.ESCAPE).perform();
            await me.press("Ask again"); // pressed while an answer is on its way, it does nothing
            return false;
          };
          await driver.wait(isTold, WAIT_MS, "what was left out");
          await driver.actions().sendKeys(Key.ESCAPE).perform();
        } else await me.see("Go, from");
      }
    } finally {
      await driver.quit();
    }
  });
});
