import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { By } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, newProfile, openBrowser, type RunningApp, sharedApp, textOf, visit, WAIT_MS } from "./browser";

/** The night itself, on a phone beside the mount: the demo's evening, from 17:40 on 5 December. */
describe("the night live", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  beforeAll(async () => {
    app = sharedApp();
    driver = await openBrowser(profile.path, { width: 390, height: 844 });
    me = hands(driver);
    await visit(driver, app.url);
    await me.see("Go, from");
  });
  afterAll(async () => {
    await driver.quit();
    await app.stop();
    profile.remove();
  });

  /** Sets the demo's clock, as if so much of the night had gone by. */
  const clock = (iso: string) =>
    driver.executeScript(
      "document.documentElement.dataset.now = String(Date.parse(arguments[0])); document.dispatchEvent(new Event('visibilitychange'))",
      iso,
    );
  const title = () => textOf(driver, "main h1");

  it("opens from the sheet, in red after sunset, and says what comes next; what one presses is 56 px high, the main line 28 px", async () => {
    await visit(driver, `${app.url}/nights`);
    await me.see("Live, beside the mount");
    await driver.executeScript(
      "[...document.querySelectorAll('a')].find((a) => a.textContent === 'Live, beside the mount').scrollIntoView({ block: 'center' })",
    );
    await me.press("Live, beside the mount");
    await me.see("Next:");
    expect(await driver.executeScript("return document.documentElement.dataset.theme")).toBe("ember");
    const small = await driver.executeScript<string[]>(
      "return [...document.querySelectorAll('main :is(button, a, select, summary)')].filter((b) => b.checkVisibility() && b.getBoundingClientRect().height < 56 && b.textContent !== 'Understood').map((b) => b.outerHTML)",
    );
    expect(small).toEqual([]);
    expect(await driver.executeScript("return document.documentElement.scrollWidth <= innerWidth")).toBe(true);
    const size = await driver.executeScript<number>("return parseFloat(getComputedStyle(document.querySelector('main h1')).fontSize)"); // prettier-ignore
    expect(size).toBeGreaterThanOrEqual(28);
  });

  it("follows the clock through the blocks, takes a word on each, and takes a press back", async () => {
    await me.press("Begun");
    await me.see("Take it back");
    await clock("2026-12-05T18:30:00Z");
    await me.see("done, all kept");
    expect(await title()).toMatch(/^Ha on P/);
    await me.see("of 6 subs, to");
    await me.press("Done, some lost");
    await me.fill("Lost", "7");
    await me.see("1 to 6");
    await me.fill("Lost", "2");
    await me.press("Write down");
    await me.see("ahead of the sheet");
    await me.press("Take it back");
    await me.gone("ahead of the sheet");
    await me.press("Done, some lost");
    await me.fill("Lost", "2");
    await me.press("Write down");
    await me.see("ahead of the sheet");
  });

  it("says under cloud the ways to go on, with what each keeps and costs, and what was decided stands", async () => {
    await me.press("Cloud came");
    await me.see("Cloud since 19:30");
    await me.see("of exposure to be expected");
    await me.see("nothing more tonight");
    await me.press("Wait until");
    await me.see("Decided: Wait until");
    await me.press("It cleared");
    await me.gone("Cloud since");
    await me.press("Trouble …");
    await me.fill("What went wrong", "cable caught");
    await me.press("Write down");
    await me.see("Take it back");
    await me.press("Focused …");
    await me.fill("Air", "4");
    await me.press("Focused now");
    await me.press("Written down tonight: 7 presses");
    await me.see("Trouble: cable caught");
    await me.see("Focused, 4 °C");
    // All of it for the other device, in a file of this night alone.
    await me.press("With the other device");
    await driver.executeScript(
      "[...document.querySelectorAll('button')].find((b) => b.textContent.trim() === 'This night as a file').scrollIntoView({ block: 'start' })",
    );
    await me.press("This night as a file");
    const file = join(profile.path, "downloads", "night-2026-12-05.zenithar.json");
    await driver.wait(() => existsSync(file), WAIT_MS, "the file of the night");
    const kinds = (JSON.parse(readFileSync(file, "utf8")) as { records: { kind: string; deletedAt?: string }[] })
      .records;
    expect(kinds.filter((r) => r.kind === "event" && r.deletedAt === undefined)).toHaveLength(7);
    expect(new Set(kinds.map((r) => r.kind))).toEqual(new Set(["event", "begun", "look"]));
  });

  it("keeps every press over a reload, and the log takes over what was told by one press", async () => {
    await driver.navigate().refresh();
    await me.see("Next:");
    await clock("2026-12-05T18:31:00Z");
    await me.see("Written down tonight: 7 presses");
    await me.press("Packed up");
    await me.see("The night is over.");
    await me.see("4 of 6 × 300 s Ha on P");
    // Of the block before it nobody spoke; those after it never came.
    const asked = () => driver.findElements(By.css("[aria-label='Nobody spoke of'] li"));
    expect(await asked()).toHaveLength(1);
    await me.press("Not taken");
    await driver.wait(async () => (await asked()).length === 0, WAIT_MS, "it should not be asked again");
    await me.press("Begun again");
    await me.see("Cloud came");
    await me.press("Packed up");
    await me.see("The night is over.");
    await driver.executeScript("scrollTo(0, document.body.scrollHeight)");
    await me.press("Into the log");
    await me.see("Told at the mount, Sat 5 Dec");
    await me.see("2 lost: cloud");
    await me.press("Put 1 entry into the log");
    await me.gone("Told at the mount");
    await me.see("1 entry added.");
  });

  it("gives the theme back that was chosen when one goes on to another page", async () => {
    const theme = () => driver.executeScript<string>("return document.documentElement.dataset.theme");
    await visit(driver, `${app.url}/nights/live`);
    await driver.wait(async () => (await theme()) === "ember", WAIT_MS, "it should be red after sunset");
    await me.press("The whole sheet");
    await me.see("Two rigs at once");
    await driver.wait(async () => (await theme()) === "dusk", WAIT_MS, "as it was chosen, on another page");
  });
});
