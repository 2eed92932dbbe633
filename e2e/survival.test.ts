import { By } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, killAll, newProfile, openBrowser, type RunningApp, startPlainDemo, textOf, WAIT_MS } from "./browser";

/** Edits and typed text outlive reloads, closed tabs, typed addresses, the way back, and a killed browser. */

// Rounds of every way of leaving: few in `npm test`, 20 each with SURVIVAL_ROUNDS=20.
const ROUNDS = Number(process.env["SURVIVAL_ROUNDS"] ?? 2);

const COLUMNS = "Columns";

describe("what is not saved yet", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  let frame = "";
  const open = async () => {
    driver = await openBrowser(profile.path);
    me = hands(driver);
  };
  const at = async (path: string) => driver.get(`${app.url}${path}`);
  /** Chooses how many columns the frame has and does something in the very same step of the page, before any timer or answer. */
  const chooseAndThen = (columns: string, then: string): Promise<void> =>
    driver.executeScript(
      `const words = [...document.querySelectorAll('label')].find((l) => l.textContent === ${JSON.stringify(COLUMNS)});
       const box = document.getElementById(words.htmlFor);
       Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(box, arguments[0]);
       box.dispatchEvent(new Event('change', { bubbles: true }));
       ${then}`,
      columns,
    );
  const valueOf = (label: string) => me.value(label);
  /**
   * Waits until the browser's database has an edit with so many columns, which it has a few milliseconds after the press; a
   * kill before that is a power cut in the middle of the press. Given up after a second: by then the edit is kept.
   */
  const writtenDown = (columns: number): Promise<boolean> =>
    driver.executeAsyncScript(
      `const [columns, done] = arguments;
       const until = Date.now() + 1000;
       indexedDB.open('zenithar-demo-drafts').onsuccess = ({ target: { result: db } }) => {
         const look = () => {
           db.transaction('drafts').objectStore('drafts').getAll().onsuccess = ({ target: { result: all } }) => {
             if (all.some(({ value }) => value?.data?.columns === columns)) done(true);
             else if (Date.now() > until) done(false);
             else setTimeout(look, 2);
           };
         };
         look();
       };`,
      columns,
    );

  beforeAll(async () => {
    app = await startPlainDemo();
    await open();
    await at("");
    await me.see("Go, from");
    // A frame without hours: what moves panels with hours asks first (see the journey of the moved frame).
    await at("/projects/project-roof/frame");
    await me.press("Another frame for this project");
    await driver.wait(
      async () => (await driver.findElements(By.css("option[value^='frame-']"))).length > 1,
      WAIT_MS,
      "another frame",
    );
    const other = await driver.executeScript<string>(
      "return [...document.querySelectorAll('option')].map((o) => o.value).find((v) => v.startsWith('frame-') && v !== 'frame-roof')",
    );
    frame = `/projects/project-roof/frame?frame=${other}`;
  });
  afterAll(async () => {
    await driver.quit();
    await app.stop();
    profile.remove();
  });

  const ways: readonly (readonly [string, (columns: string) => Promise<void>])[] = [
    ["a reload", (columns) => chooseAndThen(columns, "location.reload();")],
    ["a typed address", (columns) => chooseAndThen(columns, "location.href = '/kit';")],
    ["the way back", (columns) => chooseAndThen(columns, "history.back();")],
    [
      "a closed tab",
      async (columns) => {
        const before = await driver.getWindowHandle();
        await driver.switchTo().newWindow("tab");
        await at(frame);
        await me.box(COLUMNS);
        await chooseAndThen(columns, "");
        await driver.close();
        await driver.switchTo().window(before);
      },
    ],
    [
      "a killed browser",
      async (columns) => {
        await chooseAndThen(columns, "");
        await writtenDown(Number(columns));
        killAll(profile.path);
        await driver.quit().catch(() => undefined);
        await open();
      },
    ],
  ];
  it.each(ways)("a frame's last edit outlives %s", async (_, leave) => {
    for (let round = 0; round < ROUNDS; round++) {
      await at("/kit");
      await at(frame);
      await me.box(COLUMNS);
      const columns = String((Number(await valueOf(COLUMNS)) % 4) + 1);
      await leave(columns);
      await at(frame);
      expect(await valueOf(COLUMNS)).toBe(columns);
      expect(await driver.findElements(me.byText("h2", "Changed in two places at once"))).toEqual([]);
    }
  });

  it("kinds and a sky that were chosen by a press alone are there again after a reload", async () => {
    for (const [path, press, shows] of [
      ["/kit/rigs/new", "refractor 714 mm f/7", "Telescope or lens: refractor 714 mm f/7"],
      ["/kit/places/new", "village: the Milky Way is plain", "How dark is it there"],
    ] as const) {
      await at(path);
      await me.press(press);
      await driver.sleep(100);
      await driver.navigate().refresh();
      await me.see("Not saved yet: this is what you typed here before.");
      await me.see(shows);
      if (path.includes("places")) expect(await me.value("Darkness")).toBe("20.8");
      await me.press("Discard it");
      await me.gone("Not saved yet");
    }
  });

  /** Every form that keeps what is typed: where it is, a box of it, and what opens it. */
  const forms = [
    ["a place", "/kit/places/place-garden", "Name", "Typed place"],
    ["a new place", "/kit/places/new", "Name", "Typed new place"],
    ["a rig", "/kit/rigs/rig-refractor", "Focal length", "417"],
    ["a new filter", "/kit/filters", "Name in its files", "Typed filter"],
    ["a target", "/targets/own/new", "Name", "Typed target"],
    ["a log entry", "/log", "Note", "Typed note", "Or by hand, box by box"],
    ["a project's notes", "/projects/project-loop/plan", "Notes", "Typed notes", "Change"],
    ["a budget", "/projects/project-loop/budget", "Protect stars", "7.5"],
    ["a frame's number", "/projects/project-loop/frame", "Position angle", "77"],
    ["one's own name", "/kit/data", "Your name", "Typed name"],
    ["a typed forecast", "/", "Hours, cloud, gusts", "19-23 44", "A forecast of your own"],
    ["the hours worth going out for", "/", "Minimum hours", "3.25"],
  ] as const;
  it.each(forms)("%s that was typed is there again after a reload, and goes when it is discarded", async (...form) => {
    const [, path, label, value, opener] = form;
    await at(path);
    /** The last box of that label: a new filter's is below the others. */
    const last = () =>
      driver.executeScript<string | null>(
        `const labels = [...document.querySelectorAll('label')].filter((l) => l.textContent === arguments[0] || l.textContent.startsWith(arguments[0] + ' ·'));
         const box = document.getElementById(labels.at(-1)?.htmlFor);
         return box && box.checkVisibility() ? box.value : null`,
        label,
      );
    const opened = async () => {
      if ((await last()) !== null) return true;
      if (opener)
        await driver.executeScript(
          "[...document.querySelectorAll('button, summary')].find((e) => e.textContent.includes(arguments[0]))?.click()",
          opener,
        );
      return false;
    };
    await driver.wait(opened, WAIT_MS, `no box “${label}”`);
    const before = await last();
    await me.fill(label, value);
    await driver.navigate().refresh();
    await driver.wait(async () => (await last()) === value, WAIT_MS, "what was typed should be there again");
    if (["the hours worth going out for", "a frame's number"].includes(form[0])) {
      await me.fill(label, before ?? "");
      return; // a single box: typed back, it is as it was
    }
    await me.press("Discard it");
    await driver.wait(async () => (await last()) === before, WAIT_MS, "it should be discarded");
  });

  it("is not wiped by what another tab saves of the same thing, and both versions are kept", async () => {
    await at("/kit/filters");
    const openFirst = () => driver.findElement(By.css("h2 button")).click();
    const name = () => driver.findElement(By.css("form input[name=name]"));
    const typed = () => driver.executeScript<string>("return document.querySelector('form input[name=name]')?.value");
    await me.see("A new filter");
    await openFirst();
    await driver.wait(async () => (await typed()) !== "", WAIT_MS);
    const old = await typed();
    await name().sendKeys(" typed");
    const first = await driver.getWindowHandle();
    await driver.switchTo().newWindow("tab");
    await at("/kit/filters");
    await me.see("A new filter");
    await openFirst();
    await driver.wait(async () => (await typed()) === old, WAIT_MS, "another tab has its own");
    await name().sendKeys(" elsewhere");
    await me.press("Save");
    await me.see(`${old} elsewhere saved.`);
    await driver.close();
    await driver.switchTo().window(first);
    await driver.wait(async () => (await typed()) === `${old} typed`, WAIT_MS, "what is typed should stand");
    await me.press("Save");
    await me.see(`${old} typed saved.`);
    await at("/kit/data");
    await me.see("Changed in two places at once");
    await me.see(`${old} elsewhere`);
    await me.press("Keep what counts now");
    await me.gone("Changed in two places at once");
  });

  it("is no draft any more once it is saved: nobody is told of it, on this page or the next", async () => {
    await at("/kit/places/place-barn");
    await me.fill("Elevation", "311");
    await me.press("Save place");
    await me.see("Garden behind the mill");
    await driver.sleep(800); // a note about it would have come by then
    const body = () => textOf(driver, "body");
    const told = async () => (await body()).split("\n").filter((line) => line.includes("Not saved yet"));
    expect(await told()).toEqual([]);
    await at("/kit/places/place-barn");
    expect(await me.value("Elevation")).toBe("311");
    await driver.sleep(2000);
    expect(await told()).toEqual([]);
    await at("/kit/filters");
    await me.see("A new filter");
    await driver.findElement(By.css("h2 button")).click();
    await driver.findElement(By.css("form input[name=name]")).sendKeys("x");
    await me.press("Save");
    await me.see("x saved.");
    await driver.sleep(300);
    expect(await told()).toEqual([]);
  });

  it("is followed by the frame when a copy of it is taken, and the next edit builds upon that", async () => {
    await at("/kit");
    await at(frame);
    await me.value(COLUMNS);
    const first = await driver.getWindowHandle();
    await driver.switchTo().newWindow("tab");
    await at(frame);
    await me.value(COLUMNS);
    const shown = await me.value(COLUMNS);
    const [one, other] = shown === "1" ? ["2", "3"] : shown === "2" ? ["1", "3"] : ["1", "2"];
    // Both at once: the second tab's page does not hear of the first before it saves.
    await chooseAndThen(one, "");
    await driver.switchTo().window(first);
    await chooseAndThen(other, "");
    await me.see("Changed in two places at once");
    const second = (await driver.getAllWindowHandles()).at(-1)!;
    const agree = async () => {
      await driver.switchTo().window(second);
      const there = await me.value(COLUMNS);
      await driver.switchTo().window(first);
      return there === (await me.value(COLUMNS));
    };
    await driver.wait(agree, WAIT_MS, "both tabs should show the copy that counts");
    const now = await me.value(COLUMNS);
    await me.press("Take this one instead");
    await me.gone("Changed in two places at once");
    const taken = now === one ? other : one;
    await driver.wait(async () => (await me.value(COLUMNS)) === taken, WAIT_MS, "the frame should be the one taken");
    await chooseAndThen("4", "");
    await me.see("Kept.");
    await driver.sleep(700);
    expect(await textOf(driver, "body")).not.toContain("Changed in two places at once");
    await driver.switchTo().window(second);
    await driver.wait(async () => (await me.value(COLUMNS)) === "4", WAIT_MS, "the other tab should follow");
    await driver.close();
    await driver.switchTo().window(first);
  });

  it("is kept when the browser's data is cleared while the tab is open, and so is everything else", async () => {
    await at("/kit");
    await me.see("Garden behind the mill");
    await driver.sendDevToolsCommand("Storage.clearDataForOrigin", { origin: app.url, storageTypes: "indexeddb" });
    await me.press("Garden behind the mill");
    await me.fill("Elevation", "251");
    await me.press("Save place");
    await me.see("Tomasz’s terrace");
    await driver.navigate().refresh();
    await me.press("Garden behind the mill");
    expect(await valueOf("Elevation")).toBe("251");
    await at("/kit/data");
    await me.see("4 places, 4 rigs, 3 projects");
  });

  it("does not keep the app from opening when the database never answers: it works in memory and says so", async () => {
    await driver.sendDevToolsCommand("Page.enable", {});
    const { identifier } = (await driver.sendAndGetDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", {
      source: "indexedDB.open = () => new EventTarget();",
    })) as unknown as { identifier: string };
    await at("/kit");
    await me.see("does not let the app store anything");
    await me.see("Garden behind the mill");
    await driver.sendDevToolsCommand("Page.removeScriptToEvaluateOnNewDocument", { identifier });
    await at("/kit");
    await me.see("Garden behind the mill");
    await me.gone("does not let the app store anything");
  });
});
