import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { By, until } from "selenium-webdriver";
import { afterAll, afterEach, describe, expect, it } from "vitest";
import {
  closeStage,
  hands,
  newProfile,
  openBrowser,
  openStage,
  setClock,
  type Stage,
  startPlainApp,
  visit,
  WAIT_MS,
} from "./browser";

/** A stretch as the season's leaf tells it. */
interface Told {
  readonly project: string;
  readonly channel: string;
  readonly from: string;
  readonly to: string;
}

/** What is said of an evening, wherever it is said. */
function witness({ driver, app, me }: Stage) {
  // Asked at once: an element found a moment ago may be gone when its text is wanted.
  const main = () => driver.executeScript<string>("return document.querySelector('main')?.innerText ?? ''");
  const labels = () =>
    driver.executeScript<string[]>(
      "return [...document.querySelectorAll('a[data-night]')].map((a) => a.dataset.night + ' ' + a.title)",
    );
  /** The leaf of the season, once its plan and odds are there. */
  const season = async (): Promise<readonly string[]> => {
    await visit(driver, `${app.url}/season`);
    await me.see("Take it along");
    await driver.wait(async () => !(await main()).includes("Good enough"), 2 * WAIT_MS, "the plan should be whole");
    return labels();
  };
  const stretches = (label: string): readonly Told[] =>
    [...label.matchAll(/([^;:,]+(?:, [^;:,]+?)?), ([A-Za-z0-9]+), (\d\d:\d\d) to (\d\d:\d\d)/g)].map(
      ([, project = "", channel = "", from = "", to = ""]) => ({ project: project.trim(), channel, from, to }),
    );
  /** Tonight's stretches of one rig's sheet, by its lines: when each begins and ends, in which channel. */
  const sheet = async (): Promise<string> => {
    await visit(driver, `${app.url}/nights`);
    await me.see("Print");
    return main();
  };
  return { main, season, stretches, sheet };
}

/** Whether every stretch stands on the sheet: something is done at its beginning, and its last sub ends when it does. */
function expectOnSheet(sheet: string, told: readonly Told[]): void {
  for (const { channel, from, to } of told) {
    expect(sheet, `a line at ${from}`).toMatch(new RegExp(`(^|\\n)${from}\\s*\\n`));
    expect(sheet, `${channel} to ${to}`).toMatch(new RegExp(`${channel}[^\\n]*, to ${to}|in turn, to ${to}`));
  }
}

describe("one evening, one truth, for somebody with one project", () => {
  let stage: Stage | null = null;
  let profile = newProfile();
  afterEach(async () => {
    if (stage) await closeStage(stage, profile);
    stage = null;
    profile = newProfile();
  });
  afterAll(() => profile.remove());

  const kits = [
    ["a colour camera", "refractor 480 mm f/6", "one-shot colour", "cooled, APS-C, 26 megapixels"],
    ["a mono camera with filters", "refractor 480 mm f/6", "monochrome, with filters", "cooled, four-thirds, 16 megapixels"],
    ["a lens on a tracker", "telephoto lens 135 mm f/2.8", null, "photo camera, APS-C, 24 megapixels"],
  ] as const; // prettier-ignore
  it.each(kits)("%s: the season, Tonight, the sheet and the project's plan say the same", async (_, optics, kind, camera) => {
    const app = await startPlainApp();
    const driver = await openBrowser(profile.path);
    await setClock(driver);
    const me = hands(driver);
    stage = { app, driver, me };
    await visit(driver, app.url);
    await me.see("I watch from");
    await me.fill("Town near by", "Cahors");
    await me.press("Cahors, FR");
    await me.see("Through what?");
    await me.press(optics);
    await me.see("With which camera?");
    if (kind) await me.press(kind);
    await me.press(camera);
    await me.see("How dark is it there");
    await me.press("village: the Milky Way is plain, glow on the horizon");
    await me.see("the best three, if it is clear");
    await me.press("Begin it tonight");
    await me.see("Checklist");
    const { main, season, stretches, sheet } = witness(stage);
    const told = stretches((await season()).find((l) => !l.includes("gone by"))!);
    expect(told.length).toBeGreaterThan(0);
    expectOnSheet(await sheet(), told);
    const first = told[0]!;
    await visit(driver, `${app.url}/`);
    await me.see("Look up");
    await driver.wait(async () => !(await main()).includes("Provisional"), WAIT_MS, "the plan");
    const tonight = await main();
    // Stay in, or go: the plan's last hour is named where one goes for all of it.
    if (/^Go/m.test(tonight)) expect(tonight).toContain(first.channel);
    await me.press("Projects");
    await me.see("kept, counts");
    await driver.findElement(By.css("main h2 a")).click();
    await me.see("Its nights");
    for (const t of told) expect(await main()).toContain(`${t.channel} ${t.from}–${t.to}`);
  }); // prettier-ignore
});

describe("one evening, one truth, for a group with mosaics", () => {
  const profile = newProfile();
  let stage: Stage;
  afterAll(async () => {
    await closeStage(stage, profile);
  });
  const saveRules = async (school: string, first: string) => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/projects/project-loop/plan`);
    await me.press("Change");
    await me.see("How it is shot");
    await driver.executeScript("[...document.querySelectorAll('main details')].forEach((d) => (d.open = true))");
    await me.choose("Panels", school);
    await me.choose("First of all", first);
    await me.choose("Against my other projects", "first: its hours count double");
    await me.press("Save");
    await me.see("Change");
  };
  /** The first night to come on which the mosaic is shot, and its sheet. */
  const veilSheet = async () => {
    const { main, season, stretches } = witness(stage);
    const label = (await season()).find((l) => l.includes("The whole Veil"))!;
    await visit(stage.driver, `${stage.app.url}/nights?night=${label.slice(0, 10)}`);
    await stage.me.see("Print");
    const sheet = await main();
    return {
      sheet,
      told: stretches(label).filter((t) => t.project.includes("Veil") || t.project.includes("two by three")),
      panels: [...sheet.matchAll(/\n(?:The whole Veil[^\n]*, )?(P\d)[^\n]* (?:Ha|OIII): \d+ × 300 s/g)].map((m) => m[1]!),
    }; // prettier-ignore
  };

  it("has the same plan after a reload, and in a second tab", async () => {
    stage = await openStage(profile.path);
    const { main, season } = witness(stage);
    const { driver } = stage;
    // Once the forecasts have answered: they are part of what is asked.
    await driver.get(stage.app.url);
    await stage.me.see("Go, from");
    await driver.wait(async () => !(await main()).includes("Provisional"), WAIT_MS, "the forecasts");
    const before = await season();
    expect(before.length).toBeGreaterThan(30);
    expect(await season()).toEqual(before);
    await driver.switchTo().newWindow("tab");
    expect(await season()).toEqual(before);
    await driver.close();
    await driver.switchTo().window((await driver.getAllWindowHandles())[0]!);
  });

  it("shoots one panel after another, all panels in turn, and one channel before the others, as the project says", async () => {
    await saveRules("one panel after another", "OIII");
    const after = await veilSheet();
    expect(after.told.map((t) => t.channel)).toEqual(after.told.map(() => "OIII"));
    expectOnSheet(after.sheet, after.told);
    // A panel that was left is not come back to.
    const visits = after.panels.filter((p, i) => p !== after.panels[i - 1]);
    expect(visits.length).toBeGreaterThan(0);
    expect(new Set(visits).size).toBe(visits.length);
    await saveRules("all panels every night, in turn", "no channel before the others");
    const turns = await veilSheet();
    expectOnSheet(turns.sheet, turns.told);
    expect(new Set(turns.panels).size).toBeGreaterThanOrEqual(Math.min(3, new Set(after.panels).size + 1));
  });

  it("keeps to so many hours a night, in the leaf and on the sheet", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/kit/rules`);
    await me.fill("Hours a night at most", "2");
    await me.press("Save");
    await me.see("saved");
    const { season, stretches, sheet } = witness(stage);
    const leaf = await season();
    const minutes = (t: string) => Number(t.slice(0, 2)) * 60 + Number(t.slice(3));
    let nights = 0;
    for (const label of leaf.slice(0, 20)) {
      // Each rig has its own two hours; in the demo one of them has an hour a night at most.
      const of = stretches(label).filter((t) => t.channel !== "Colour");
      if (of.length === 0) continue;
      nights++;
      const from = Math.min(...of.map((t) => (minutes(t.from) + 720) % 1440));
      const to = Math.max(...of.map((t) => (minutes(t.to) + 720) % 1440));
      expect(to - from, label).toBeLessThanOrEqual(120);
    }
    expect(nights).toBeGreaterThan(5);
    expectOnSheet(await sheet(), stretches(leaf.find((l) => l.startsWith("2026-12-05"))!).filter((t) => t.channel !== "Colour")); // prettier-ignore
  });
});

describe("a plan that goes along with a backup", () => {
  it("is the plan of the browser it is put into", async () => {
    const app = await startPlainApp();
    const [here, there] = [newProfile(), newProfile()];
    let driver = await openBrowser(here.path);
    try {
      await setClock(driver);
      let me = hands(driver);
      await visit(driver, app.url);
      await me.press("Open it: Three gardens");
      await me.see("Garden behind the mill");
      const before = await witness({ app, driver, me }).season();
      await visit(driver, `${app.url}/kit/data`);
      await me.press("Export everything");
      const folder = join(here.path, "downloads");
      const written = () => (existsSync(folder) ? readdirSync(folder).find((f) => f.endsWith(".json")) : undefined);
      await driver.wait(() => written() !== undefined, WAIT_MS, "a backup");
      await driver.quit();
      driver = await openBrowser(there.path);
      await setClock(driver);
      me = hands(driver);
      await visit(driver, `${app.url}/kit/data`);
      const input = await driver.wait(until.elementLocated(By.css('input[type=file][aria-label="Import a file"]')), WAIT_MS); // prettier-ignore
      await input.sendKeys(join(folder, written()!));
      await me.see("My own backup");
      // The samples were made in December: on an ordinary day of November their versions are of a clock that is ahead.
      await driver.findElement(By.xpath("//label[contains(., 'Let them in all the same')]")).click();
      await me.press("Merge");
      await me.see("3 projects");
      expect(await witness({ app, driver, me }).season()).toEqual(before);
    } finally {
      await driver.quit().catch(() => undefined);
      await app.stop();
      here.remove();
      there.remove();
    }
  });
});
