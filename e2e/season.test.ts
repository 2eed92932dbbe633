import { existsSync, readFileSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { By, until } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, newProfile, openBrowser, type RunningApp, sharedApp, textOf, visit, WAIT_MS } from "./browser";

/** One plan for everything: what each screen says of tonight, locks, what moves, two rigs, what if. The demo group: three projects, a new Moon, one target behind a roof. */
describe("the season", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  const main = () => textOf(driver, "main");
  const aside = () => textOf(driver, "main aside");
  const waitFor = (is: () => Promise<boolean>, words: string) => driver.wait(is, WAIT_MS, words);
  const night = (date: string) => driver.findElement(By.css(`a[data-night="${date}"]`));
  const label = async (date: string) => (await (await night(date)).getAttribute("title")) ?? "";

  beforeAll(async () => {
    app = sharedApp();
    driver = await openBrowser(profile.path);
    me = hands(driver);
    await visit(driver, app.url);
    await me.see("Go, from");
  });
  afterAll(async () => {
    await driver.quit();
    await app.stop();
    profile.remove();
  });

  it("lays all projects into the nights to come, within a proven distance of the best, each night with its reasons", async () => {
    await me.press("Season");
    await me.see("of the best possible");
    expect(await main()).toMatch(/Within 0(\.\d)? % of the best possible|Within 1 % of the best possible/);
    await waitFor(async () => (await aside()).includes("If it is clear,"), "reasons should come");
    const tonight = await label("2026-12-05");
    expect(tonight).toMatch(/The whole Veil, two by three, (Ha|OIII), \d\d:\d\d to \d\d:\d\d/);
    expect(tonight).toMatch(/Sculptor past the roof, Colour/);
    // The new Moon is named, and a night gone by is not planned.
    expect(await label("2026-12-08")).toContain("new Moon");
    expect(await label("2026-12-04")).toContain("gone by");
  });

  it("says the same of tonight on Tonight, on the sheets of both rigs, in the season and in a project's plan", async () => {
    const inSeason = await label("2026-12-05");
    const [, channel, from, to] = /The whole Veil, two by three, (\w+), (\d\d:\d\d) to (\d\d:\d\d)/.exec(inSeason)!;
    await me.press("Tonight");
    await waitFor(async () => (await main()).includes("with 2 rigs"), "two rigs tonight");
    expect(await main()).toContain(`The whole Veil, two by three, in ${channel}`);
    await me.press("Open the run sheet");
    await me.see("Run sheet for");
    const sheet = await main();
    const first = /(\d\d:\d\d)\s*\nCentre The whole Veil/.exec(sheet)!;
    expect(first[1]).toBe(from);
    expect(sheet).toContain(`P`);
    await me.see("Two rigs at once");
    await me.choose("Run sheet for", "Newtonian with colour camera");
    await me.see("Sculptor past the roof");
    await visit(driver, `${app.url}/projects/project-loop/plan`);
    await me.see("Its nights");
    await waitFor(async () => (await main()).includes(`${channel} ${from}–${to}`), "the project's share says the same");
  });

  it("keeps a night free by hand, moves the rest, says what moved, and takes it back", async () => {
    await visit(driver, `${app.url}/season?night=2026-12-07`);
    await me.see("of the best possible");
    await waitFor(async () => (await aside()).includes("If it is clear,"), "the plan should be whole");
    expect(await label("2026-12-07")).not.toContain("no work");
    const all = () =>
      driver.executeScript<string[]>(
        "return [...document.querySelectorAll('a[data-night]')].map((a) => a.dataset.night + ' ' + a.title)",
      );
    const before = await all();
    await driver.sleep(3500); // read it: what comes then is compared with it
    await me.press("Keep the night free");
    await me.see("Mon 7 Dec stays free.");
    await waitFor(async () => (await label("2026-12-07")).includes("no work"), "the night should be free");
    expect(await label("2026-12-07")).toContain("kept by hand");
    await me.see("Mon 7 Dec: nothing instead of");
    await me.press("Undo");
    await waitFor(async () => !(await label("2026-12-07")).includes("no work"), "the night should be used again");
    await waitFor(
      async () => JSON.stringify(await all()) === JSON.stringify(before),
      "every night should be as it was",
    );
  });

  it("gives a night to a project by hand, by the keyboard too, and names what contradicts", async () => {
    await visit(driver, `${app.url}/season?night=2026-12-10`);
    await me.see("of the best possible");
    await driver.executeScript("document.querySelector('a[data-night=\"2026-12-10\"]').focus()");
    await driver.actions().sendKeys("\uE014").perform(); // right
    const focused = await driver.executeScript<string>("return document.activeElement.dataset.night");
    expect(focused).toBe("2026-12-11");
    await driver.actions().sendKeys("\uE007").perform(); // Enter
    await waitFor(async () => (await aside()).includes("Friday 11 December"), "the chosen night should be shown");
    const has = (await label("2026-12-11")).includes("The whole Veil");
    await me.press(`${has ? "Keep" : "This instead"}: The whole Veil, two by three`);
    await me.see("Fri 11 Dec is kept.");
    await waitFor(async () => (await label("2026-12-11")).includes("The whole Veil"), "the Veil should be there");
    await me.press("Keep the night free");
    await me.see("Not everything you fixed can be kept:");
    await me.see("The whole Veil, two by three kept and the night kept free contradict each other.");
    await me.press("Use the night again");
    await me.gone("Not everything you fixed can be kept:");
    await me.press("Kept: let go of The whole Veil, two by three");
    await me.see("1 lock let go.");
  });

  it("answers what if, with the odds before and after", async () => {
    await visit(driver, `${app.url}/season`);
    await me.see("of the best possible");
    await waitFor(async () => (await aside()).includes("What if"), "the plan should be whole");
    await me.choose("What if …", "The whole Veil, two by three waited four weeks");
    await me.press("Compare");
    await me.see("If The whole Veil, two by three waited four weeks:");
    expect(await aside()).toMatch(/The whole Veil, two by three\s*\neven odds .+ → /);
  });

  it("keeps a wish list: from a target's page and from a file, with what is not found named, its months, and what starting it would do", async () => {
    await visit(driver, `${app.url}/targets/Sh2-132`);
    await me.press("Put it on the wish list");
    await me.see("is on your wish list");
    await visit(driver, `${app.url}/season`);
    await me.see("Wish list");
    const file = join(profile.path, "wishes.txt");
    writeFileSync(file, "NGC 7635\nno such thing 12345\n21 02 30 +68 10 00\n");
    const input = await driver.wait(until.elementLocated(By.css('input[type=file][aria-label="Wishes from a file"]')), WAIT_MS); // prettier-ignore
    await input.sendKeys(file);
    await me.see("Not found: no such thing 12345.");
    await me.see("2 wishes on the list.");
    await driver.wait(async () => (await main()).includes("Bubble Nebula"), WAIT_MS, "the wish should be on the list");
    const rows = await driver.wait(until.elementsLocated(By.xpath("//table//tr[contains(., 'a wish')]")), WAIT_MS);
    expect(rows.length).toBe(3);
    await me.see("Compare");
    const question = await driver.findElement(By.xpath("//select/option[contains(., 'Bubble Nebula were begun')]"));
    await question.click();
    await me.press("Compare");
    await me.see("If NGC 7635");
    expect(await aside()).toMatch(/not begun → /);
    await me.press("Look through the catalogue");
    const months = By.xpath("//section[contains(., 'Best in which month here')]//li");
    await waitFor(async () => (await driver.findElements(months)).length === 12, "twelve months of targets");
    await me.press("Take off the list: Sh2-132 · Lion Nebula");
    await me.see("Off the wish list.");
  });

  it("gives the season to a calendar: an event a planned night, with an alarm", async () => {
    await me.press("Season to my calendar");
    const folder = join(profile.path, "downloads");
    const file = () => (existsSync(folder) ? readdirSync(folder).find((f) => f.endsWith("season.ics")) : undefined);
    await waitFor(() => Promise.resolve(file() !== undefined), "the file should come");
    const ics = readFileSync(join(folder, file()!), "utf8");
    expect(ics.match(/BEGIN:VEVENT/g)!.length).toBeGreaterThan(3);
    expect(ics).toContain("BEGIN:VALARM");
    expect(ics).toMatch(/SEQUENCE:\d+/);
  });

  it("plans around rules: one rig at a time, and evenings that are not free", async () => {
    await visit(driver, `${app.url}/kit/rules`);
    await me.see("Planning my nights");
    await me.fill("Targets a night", "0");
    await me.press("Save");
    await me.see("From 1 to 6");
    await me.fill("Drive to Pass above the larches from", "99");
    await me.fill("Targets a night", "1");
    await me.press("Save");
    await me.see("From 0 to 20 h more");
    await me.fill("Drive to Pass above the larches from", "");
    await driver.findElement(By.xpath("//label[contains(., 'One rig at a time')]")).click();
    await me.press("Save");
    await me.see("Your rules are saved.");
    await me.press("Season");
    await me.see("of the best possible");
    await waitFor(async () => {
      const words = await label("2026-12-05");
      return (words.match(/ to \d\d:\d\d/g) ?? []).length > 0 && new Set(words.match(/The whole Veil|Sculptor|Sh2-216/g)).size === 1;
    }, "one target with one rig"); // prettier-ignore
  });
});
