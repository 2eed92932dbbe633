import { By } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, newProfile, openBrowser, sharedApp, WAIT_MS, type RunningApp } from "./browser";

/** The night itself, on a phone beside the mount: the demo's evening, 17:40 on 5 December. */
describe("the night live", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  beforeAll(async () => {
    app = sharedApp();
    driver = await openBrowser(profile.path, { width: 390, height: 844 });
    me = hands(driver);
    await driver.get(app.url);
    await me.see("Go, from");
  });
  afterAll(async () => {
    await driver.quit();
    await app.stop();
    profile.remove();
  });

  it("opens from the sheet, in red after sunset, says what is on and what is next, and what one presses is 56 px high", async () => {
    await driver.get(`${app.url}/nights`);
    await me.press("Live, beside the mount");
    await me.see("Next:");
    expect(await driver.executeScript("return document.documentElement.dataset.theme")).toBe("ember");
    const small = await driver.executeScript<string[]>(
      "return [...document.querySelectorAll('main button')].filter((b) => b.checkVisibility() && b.getBoundingClientRect().height < 56).map((b) => b.textContent)",
    );
    expect(small).toEqual([]);
    expect(await driver.executeScript("return document.documentElement.scrollWidth <= innerWidth")).toBe(true);
    const size = await driver.executeScript<number>("return parseFloat(getComputedStyle(document.querySelector('main h1')).fontSize)"); // prettier-ignore
    expect(size).toBeGreaterThanOrEqual(28);
  });

  it("takes a word on the sky, says the ways to go on with what each keeps, and takes a press back within a minute", async () => {
    await me.press("Cloud came");
    await me.see("Cloud since 17:4");
    await me.see("still to be had");
    await me.press("Wait until");
    await me.see("Take it back");
    await me.press("It cleared");
    await me.gone("Cloud since");
    await me.press("Trouble …");
    await me.fill("What went wrong", "cable caught");
    await me.press("Write down");
    await me.see("Take it back");
    await me.press("Take it back");
    await me.gone("Take it back");
  });

  it("keeps every press over a reload and gives the theme back that was chosen", async () => {
    await me.press("Focused …");
    await me.fill("Air", "4");
    await me.press("Focused now");
    await me.see("Take it back");
    await driver.navigate().refresh();
    await me.see("Next:");
    await driver.get(`${app.url}/kit/data`);
    await driver.wait(async () => (await driver.findElements(By.css("main h1, main h2"))).length > 0, WAIT_MS);
    expect(await driver.executeScript("return document.documentElement.dataset.theme")).not.toBe("ember");
  });
});
