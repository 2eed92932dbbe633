import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type * as chrome from "selenium-webdriver/chrome.js";
import { hands, newProfile, openBrowser, startApp, type RunningApp } from "./browser";

describe("the whole job", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  beforeAll(async () => {
    app = await startApp();
    driver = await openBrowser(profile.path);
  });
  afterAll(async () => {
    await driver.quit();
    expect(await app.stop()).toBe(0);
    profile.remove();
  });

  it("opens on Tonight with the demo group's evening", async () => {
    const me = hands(driver);
    await driver.get(app.url);
    await me.see("If it clears, go from");
    await me.see("Saturday 5 December 2026");
  });
});
