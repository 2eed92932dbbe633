import { By } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, newProfile, openBrowser, sharedApp, WAIT_MS, type RunningApp } from "./browser";

/** Everything that a picture needs, done without a mouse: what somebody does who cannot use one, or stands in the dark. */
describe("by keys alone", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  beforeAll(async () => {
    app = sharedApp();
    driver = await openBrowser(profile.path);
  });
  afterAll(async () => {
    await driver.quit();
    await app.stop();
    profile.remove();
  });

  it("does the whole job by keys alone: a target, its project, frame, hours, plan, sheet and log", async () => {
    const me = hands(driver);
    await driver.get(app.url);
    await me.see("Go, from");
    const [TAB, ENTER, CONTROL] = ["\uE004", "\uE007", "\uE009"];
    const type = (keys: string) => driver.actions().sendKeys(keys).perform();
    /** Goes on by Tab to what is called so, as somebody does who does not see the page. */
    const to = async (called: string, most = 160) => {
      for (let i = 0; i < most; i++) {
        const here = await driver.executeScript<string>(
          "const e = document.activeElement; return (e.getAttribute('aria-label') ?? e.labels?.[0]?.textContent ?? e.textContent ?? '').trim()",
        );
        if (here.startsWith(called)) return;
        await type(TAB);
      }
      throw new Error(`Tab does not come to “${called}”`);
    };
    await driver.actions().keyDown(CONTROL).sendKeys("k").keyUp(CONTROL).perform();
    await driver.wait(() => driver.executeScript<boolean>("return document.activeElement.matches('[role=dialog] input')"), WAIT_MS); // prettier-ignore
    await type("Sh2-132");
    await me.see("Lion Nebula");
    await type(ENTER);
    await me.see("Its way over the skyline");
    await to("Start a project");
    await type(ENTER);
    await me.see("Whole frame");
    // The frame is nudged and turned on the chart.
    await to("Sky chart");
    const chart = () => driver.findElement(By.css("canvas[role=application]")).getAttribute("aria-label");
    const before = await chart();
    await type("\uE013"); // up
    await type(".");
    await me.see("Kept.");
    expect(await chart()).not.toBe(before);
    await to("Budget", 300);
    await type(ENTER);
    await me.see("decided by");
    await to("Hours · h");
    await driver.actions().keyDown(CONTROL).sendKeys("a").keyUp(CONTROL).sendKeys("2.5").perform();
    await to("Save budget");
    await type(ENTER);
    await me.see("Saved");
    await to("Plan", 300);
    await type(ENTER);
    await me.see("Its nights");
    await type("5");
    await me.see("Checklist");
    await type("6");
    await me.see("Or in a line");
    await to("Of");
    await type("Sh2-132");
    await to("Evening of");
    await type("5 of 6 x 300 s Ha, cloud");
    await to("Add lines");
    await type(ENTER);
    await me.see("5 of 6 × 300 s");
  });
});
