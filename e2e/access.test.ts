import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ALL_RULES, breachesOf, COLOUR_RULES } from "./axe";
import { hands, newProfile, openBrowser, sharedApp, type RunningApp } from "./browser";

/** WCAG 2.2 A and AA by axe-core on every main view, in Day and Dusk; and the whole app by keyboard. */
describe("access", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  const VIEWS = [
    ["/", "Where the night goes"],
    ["/targets", "up this night"],
    ["/targets/NGC%20253", "Its way over the skyline"],
    ["/targets/Sh2-132/finder", "Begin here"],
    ["/targets/own/new", "A target of your own"],
    ["/projects", "kept, counts"],
    ["/projects/project-loop/frame", "Whole frame"],
    ["/projects/project-loop/budget", "clock time"],
    ["/projects/project-loop/plan", "Its nights"],
    ["/projects/project-shell/log", "What we have"],
    ["/projects/project-shell/crew", "Together"],
    ["/season", "Compare"],
    ["/nights", "Checklist"],
    ["/kit/places/place-garden", "Clear nights by month"],
    ["/kit/rigs", "Add a rig"],
    ["/kit/rigs/rig-refractor", "What it sees"],
    ["/kit/filters", "A new filter"],
    ["/start", "I watch from"],
    ["/kit/data", "Bring it back"],
    ["/kit/sources", "Where the numbers come from"],
    ["/kit/glossary", "One word a thing"],
  ] as const;
  const IN_EMBER_TOO: ReadonlySet<string> = new Set([
    "/start",
    "/kit/filters",
    "/kit/rigs/rig-refractor",
    "/kit/data",
    "/nights",
  ]);
  beforeAll(async () => {
    app = sharedApp();
    driver = await openBrowser(profile.path);
    await driver.get(app.url);
    await hands(driver).see("Go, from");
  });
  afterAll(async () => {
    await driver.quit();
    await app.stop();
    profile.remove();
  });

  it("finds no breach of WCAG 2.2 AA on any main view in day, nor one that comes with the colours of dusk", async () => {
    const breaches: string[] = [];
    await driver.manage().addCookie({ name: "theme", value: "day" });
    for (const [path, words] of VIEWS) {
      await driver.get(app.url + path);
      await hands(driver).see(words);
      breaches.push(...(await breachesOf(driver, path, "day", ALL_RULES)));
      // The page is the same, only its colours are others.
      breaches.push(...(await breachesOf(driver, path, "dusk", COLOUR_RULES)));
      if (IN_EMBER_TOO.has(path)) breaches.push(...(await breachesOf(driver, path, "ember", COLOUR_RULES)));
    }
    expect(breaches).toEqual([]);
  });

  it("goes round all stations, the nights, the help sheet and the search by keys alone", async () => {
    const me = hands(driver);
    await driver.get(app.url);
    await me.see("Go, from");
    const press = (key: string) => driver.actions().sendKeys(key).perform();
    await press("2");
    await me.see("up this night");
    await press("]");
    await me.see("What suits Sun 6 Dec?");
    await press("t");
    await me.see("What suits Sat 5 Dec?");
    await press("?");
    await me.see("The night before");
    await press("\uE00C"); // Escape
    await me.gone("The night before");
    await press("3");
    await me.see("kept, counts");
  });
});
