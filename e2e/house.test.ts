import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { By, Key, until } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { closeStage, hands, newProfile, openStage, WAIT_MS, type RunningApp, type Stage } from "./browser";

/** What holds on every screen: the shell, the keys, two tabs, narrow windows, undo. */
describe("the house", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: Stage["me"];
  beforeAll(async () => {
    ({ app, driver, me } = await openStage(profile.path));
  });
  afterAll(() => closeStage({ app, driver }, profile));
  const at = (path: string) => driver.get(`${app.url}${path}`);
  const focused = () => driver.executeScript<string>("return document.activeElement.textContent.trim()");

  it("keeps rail and ribbon when a screen does not come together, and says why", async () => {
    await at("/projects/project-nowhere/plan");
    await me.see("There is no such project here.");
    await driver.wait(
      async () => (await driver.findElements(By.css("nav[aria-label=Nights] a"))).length === 34,
      WAIT_MS,
      "the ribbon should stay",
    );
    await me.press("Kit");
    await me.see("Add a place");
  });

  it("underlines Places on a place's own page", async () => {
    await me.press("Garden behind the mill");
    await me.see("Save place");
    const tab = await driver.findElement(By.xpath("//nav[@aria-label='Kit']//a[.='Places']"));
    expect(await tab.getAttribute("class")).toContain("border-lamp");
  });

  it("goes to the heading of what was searched for, and starts a project within ten Tabs of the top", async () => {
    await driver.actions().keyDown(Key.CONTROL).sendKeys("k").keyUp(Key.CONTROL).perform();
    const box = await driver.wait(until.elementLocated(By.css("[role=dialog] [cmdk-input]")), WAIT_MS);
    await box.sendKeys("IC 5068");
    await me.see("emission nebula, Cyg");
    await box.sendKeys(Key.ENTER);
    await me.see("Its year from here");
    await driver.wait(async () => (await focused()) === "IC 5068", WAIT_MS, "focus should be on the heading");
    await at("/targets/IC%205068");
    await me.see("Start a project");
    let tabs = 0;
    do {
      await driver.actions().sendKeys(Key.TAB).perform();
      tabs++;
    } while ((await focused()) !== "Start a project" && tabs < 30);
    expect(tabs).toBeLessThanOrEqual(10);
  });

  it("walks the ribbon by arrows, one stop for the Tab key", async () => {
    const chosen = await driver.findElement(By.css("nav[aria-label=Nights] a[aria-current=date]"));
    await driver.executeScript("arguments[0].focus()", chosen);
    await driver.actions().sendKeys(Key.ARROW_RIGHT, Key.ENTER).perform();
    await driver.wait(async () => (await driver.getCurrentUrl()).includes("night=2026-12-06"), WAIT_MS);
    expect(await driver.findElements(By.css("nav[aria-label=Nights] a[tabindex='0']"))).toHaveLength(1);
  });

  it("hears of what another tab keeps, and shows it without being asked", async () => {
    await at("/kit/data");
    await me.see("Your name");
    const first = await driver.getWindowHandle();
    await driver.switchTo().newWindow("tab");
    await at("/kit/data");
    const there = hands(driver);
    await there.fill("Your name", "Ines of the mill");
    await there.press("Save name");
    await there.see("Your name is changed.");
    await driver.close();
    await driver.switchTo().window(first);
    await driver.wait(
      () => driver.executeScript<boolean>("return [...document.querySelectorAll('main input')].some((box) => box.value === 'Ines of the mill')"), // prettier-ignore
      WAIT_MS,
      "the other tab's name should be here",
    );
  });

  it("says that something is deleted once it is, and brings all of it back by Undo", async () => {
    await at("/projects/project-loop/plan");
    await me.press("Change");
    await me.press("Delete project");
    await me.see("The whole Veil, two by three deleted");
    await driver.wait(async () => new URL(await driver.getCurrentUrl()).pathname === "/projects", WAIT_MS);
    await me.gone("Print one metre wide");
    await me.press("Undo");
    await me.see("The whole Veil, two by three");
    await at("/projects/project-loop/frame");
    await me.see("6 panels: 6 times the hours");
    await at("/log");
    await me.see("The whole Veil, two by three");
    await at("/projects/project-loop/frame");
    await me.see("6 panels: 6 times the hours");
  });

  it("undoes a whole drag of the frame at once, and does it again by keys", async () => {
    const box = await driver.findElement(By.css("canvas")).getRect();
    const ra = async () => (await me.box("Right ascension")).getAttribute("value");
    const before = await ra();
    const mouse = (type: string, x: number, y: number) =>
      driver.sendDevToolsCommand("Input.dispatchMouseEvent", { type, x, y, button: "left", buttons: 1, clickCount: 1 });
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await mouse("mousePressed", x, y);
    for (let i = 1; i <= 12; i++) await mouse("mouseMoved", x + 5 * i, y + 2 * i);
    await mouse("mouseReleased", x + 60, y + 24);
    await driver.wait(async () => (await ra()) !== before, WAIT_MS, "the frame should have moved");
    const moved = await ra();
    const keys = (shift: boolean) =>
      driver.executeScript("document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, shiftKey: arguments[0], bubbles: true }))", shift); // prettier-ignore
    await keys(false);
    await driver.wait(async () => (await ra()) === before, WAIT_MS, "one undo should take the whole drag back");
    await keys(true);
    await driver.wait(async () => (await ra()) === moved, WAIT_MS, "redo should bring it back");
  });

  it("shows the chart of a frame and its tools whole at 1280 × 800, and its eight leaves in one row", async () => {
    const seen = await driver.executeScript<{ tools: number; rows: number; ribbon: number }>(
      `const bottom = [...document.querySelectorAll('main button')].find((b) => b.textContent === 'Whole frame').getBoundingClientRect().bottom;
       const tops = [...document.querySelectorAll('[role=tab]')].map((t) => Math.round(t.getBoundingClientRect().top));
       const nights = [...document.querySelectorAll('nav[aria-label=Nights] :is(a, button)')].at(-1).getBoundingClientRect().right;
       return { tools: bottom, rows: new Set(tops).size, ribbon: nights };`,
    );
    expect(seen.tools).toBeLessThanOrEqual(800);
    expect(seen.rows).toBe(1);
    expect(seen.ribbon).toBeGreaterThan(1240);
  });

  it("never scrolls sideways on a narrow window", async () => {
    await driver.sendDevToolsCommand("Emulation.setDeviceMetricsOverride", { width: 400, height: 800, deviceScaleFactor: 1, mobile: false }); // prettier-ignore
    const wide: string[] = [];
    for (const [path, words] of [
      ["/", "The forecasts, hour by hour"],
      ["/targets", "up this night"],
      ["/targets/IC%205068", "Its way over the skyline"],
      ["/projects/project-loop/plan", "Its nights"],
      ["/season", "Compare"],
      ["/nights", "Checklist"],
      ["/projects/project-loop/budget", "How deep the hours go"],
      ["/log", "What we have"],
      ["/kit", "Add a place"],
    ] as const) {
      await at(path);
      await me.see(words);
      const width = await driver.executeScript<number>("return document.documentElement.scrollWidth");
      if (width > 400) wide.push(`${path}: ${width}`);
    }
    expect(wide).toEqual([]);
  });
});
