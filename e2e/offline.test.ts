import { By } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, newProfile, openBrowser, startApp, untilOffline, type RunningApp, WAIT_MS } from "./browser";

/** One visit, then no server any more: every screen, every save, every worker, also after the browser was closed. */
describe("without the server", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  beforeAll(async () => {
    app = await startApp();
    driver = await openBrowser(profile.path);
    me = hands(driver);
    await driver.get(app.url);
    await me.see("Go, from");
    await untilOffline(driver);
    await app.stop();
  });
  afterAll(async () => {
    await driver.quit();
    profile.remove();
  });

  it("keeps the page that is open working on every screen", async () => {
    const rounds = [
      ["Targets", "What suits"],
      ["Projects", "kept, counts"],
      ["Season", "of the best possible"],
      ["Nights", "Print"],
      ["Log", "What we have"],
      ["Kit", "Garden behind the mill"],
      ["Rigs", "Garden refractor"],
      ["Filters", "A new filter"],
      ["Data in and out", "Take it with you"],
      ["Sources and licences", "Sources"],
      ["Projects", "kept, counts"],
      ["The whole Veil, two by three", "by"],
      ["Frame", "Position angle"],
      ["Budget", "Protect stars"],
      ["Crew", "What have we together?"],
      ["Tonight", "Go, from"],
    ] as const;
    for (const [press, see] of rounds) {
      await me.press(press);
      await me.see(see);
    }
  });

  it("opens every address cold after the browser was closed: pages, deep links, workers, catalogue, fonts", async () => {
    await driver.quit();
    driver = await openBrowser(profile.path);
    me = hands(driver);
    const pages = [
      ["/nights?night=2026-12-06", "Print"],
      ["/targets", "up this night"],
      ["/targets/NGC%207000", "North America"],
      ["/targets/NGC%207000/finder", "by stars"],
      ["/season", "of the best possible"],
      ["/log/subs?night=2026-11-08", "subs"],
      ["/log/nights", "night"],
      ["/kit/places/place-garden", "Town near by"],
      ["/kit/data", "Take it with you"],
      ["/projects/project-shell/crew", "What have we together?"],
      ["/projects/project-loop/frame", "Position angle"],
      ["/projects/project-loop/budget", "Protect stars"],
      ["/no/such/page", "No such page"],
      ["/", "Go, from"],
    ] as const;
    for (const [path, words] of pages) {
      await driver.get(app.url + path);
      await me.see(words);
    }
    expect(
      await driver.executeScript("return document.fonts.check('16px \"Atkinson Hyperlegible Next Variable\"')"),
    ).toBe(true);
    await driver.navigate().refresh();
    await me.see("Go, from");
    const breaches = await driver.executeScript<number>("return performance.getEntriesByType('resource').filter((r) => r.responseStatus >= 400).length"); // prettier-ignore
    expect(breaches).toBe(0);
  });

  it("keeps the theme that was chosen, from the first paint on", async () => {
    await driver.executeScript("document.cookie = 'theme=ember; path=/; max-age=1000'");
    await driver.get(`${app.url}/kit`);
    expect(await driver.executeScript("return document.documentElement.dataset.theme")).toBe("ember");
    await driver.executeScript("document.cookie = 'theme=dusk; path=/; max-age=1000'");
  });

  it("keeps what is typed and saved, over a restart of the browser", async () => {
    await driver.get(`${app.url}/kit`);
    await me.press("Tomasz’s terrace");
    await me.fill("Elevation", "77");
    await me.press("Save place");
    await me.see("Garden behind the mill");
    await driver.quit();
    driver = await openBrowser(profile.path);
    me = hands(driver);
    await driver.get(`${app.url}/kit`);
    await me.press("Tomasz’s terrace");
    expect(await me.value("Elevation")).toBe("77");
  });

  it("says beside each forecast that it could not be reached and how old it is, keeps the verdict, and lets one ask again or type", async () => {
    await driver.get(app.url);
    await me.see("Go, from");
    await me.press("Ask again");
    await me.see("cannot be reached");
    await me.see("Go, from");
    await me.see("A forecast of your own");
    expect(await me.text()).toMatch(/of \d\d:\d\d|\d+ (?:h|min) (?:ago|old)/);
  });
});

/** A server of another version, on the same address: the demo of another evening is one. */
describe("a new version", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  beforeAll(async () => {
    app = await startApp();
    driver = await openBrowser(profile.path);
    me = hands(driver);
    await driver.get(app.url);
    await me.see("Go, from");
    await untilOffline(driver);
  });
  afterAll(async () => {
    await driver.quit();
    await app.stop();
    profile.remove();
  });
  const night = () => driver.executeScript<string>("return document.documentElement.dataset.now");

  it("announces itself in every tab, loads only in the one that takes it, and the other goes on", async () => {
    const old = await night();
    await driver.executeScript("window.isOld = true");
    const first = await driver.getWindowHandle();
    await driver.switchTo().newWindow("tab");
    await driver.get(`${app.url}/kit`);
    await me.see("Garden behind the mill");
    await app.stop();
    app = await startApp({ PORT: new URL(app.url).port, ZENITHAR_DEMO_NOW: "2026-12-07T16:40:00Z" });
    await driver.get(`${app.url}/kit`); // still the version this browser has
    await me.see("Garden behind the mill");
    expect(await night()).toBe(old);
    await me.see("A new version is ready");
    await driver.switchTo().window(first);
    await me.see("A new version is ready");
    const second = (await driver.getAllWindowHandles()).find((h) => h !== first)!;
    await driver.switchTo().window(second);
    await me.press("Load it");
    await driver.wait(async () => (await night()) !== old, WAIT_MS, "the new version");
    await driver.switchTo().window(first);
    expect(await driver.executeScript("return window.isOld === true")).toBe(true);
    await me.press("Season"); // a screen this tab had not opened
    await me.see("of the best possible");
    expect(await night()).toBe(old);
    expect(await driver.findElements(By.xpath("//*[contains(., 'could not be computed')][self::h1]"))).toEqual([]);
  });
});
