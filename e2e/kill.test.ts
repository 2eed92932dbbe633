import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, killAll, newProfile, openBrowser, startPlainDemo, type RunningApp, WAIT_MS } from "./browser";

// Few in `npm test`; fifty with KILL_ROUNDS=50.
const ROUNDS = Number(process.env["KILL_ROUNDS"] ?? 3);

/** Saves one name after the other by the page's own form, as fast as it says that they are saved; `window.saved` counts those. */
const SAVE_ON_AND_ON = `
  window.saved = arguments[0];
  const box = () => [...document.querySelectorAll("label")].map((l) => l.textContent === "Your name" && document.getElementById(l.htmlFor)).find(Boolean);
  const type = (text) => {
    const it = box();
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(it, text);
    it.dispatchEvent(new Event("input", { bubbles: true }));
  };
  const notes = () => [...document.querySelectorAll("li")].filter((n) => n.textContent.includes("Your name is changed.")).length;
  (async () => {
    for (let n = arguments[0] + 1; ; n++) {
      document.querySelectorAll("[aria-label=Dismiss]").forEach((b) => b.click());
      while (notes() > 0) await new Promise((r) => setTimeout(r, 1));
      type("Name " + n);
      await new Promise((r) => setTimeout(r, 0));
      [...document.querySelectorAll("button")].find((b) => b.textContent === "Save name").click();
      while (notes() === 0) await new Promise((r) => setTimeout(r, 1));
      window.saved = n;
    }
  })();`;

describe("a browser that is killed in the middle of writing", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  beforeAll(async () => {
    app = await startPlainDemo();
    driver = await openBrowser(profile.path);
    me = hands(driver);
    await driver.get(app.url);
    await me.see("Go, from");
  });
  afterAll(async () => {
    await driver.quit().catch(() => undefined);
    await app.stop();
    profile.remove();
  });

  it(
    `has all that was said to be saved, and all else that was there, ${ROUNDS} times over`,
    async () => {
      let saved = 0;
      let written = 0;
      for (let round = 0; round < ROUNDS; round++) {
        await driver.get(`${app.url}/kit/data`);
        await me.see("Take it with you");
        await me.value("Your name");
        await driver.executeScript(SAVE_ON_AND_ON, saved);
        const counted = () => driver.executeScript<number>("return window.saved");
        await driver.wait(async () => (await counted()) > saved, WAIT_MS, "something should be saved");
        // Killed at any moment of a write: rounds differ by a few milliseconds.
        const until = Date.now() + 120 + ((round * 37) % 230);
        let seen = saved;
        while (Date.now() < until) seen = await counted();
        killAll(profile.path);
        await driver.quit().catch(() => undefined);
        driver = await openBrowser(profile.path);
        me = hands(driver);
        await driver.get(`${app.url}/kit/data`);
        await me.see("Take it with you");
        const name = await me.value("Your name");
        const found = Number(/^Name (\d+)$/.exec(name)?.[1] ?? Number.NaN);
        expect(found, `“${name}”, and ${seen} were said to be saved`).toBeGreaterThanOrEqual(seen);
        written += found - saved;
        saved = found;
        const page = await me.text();
        expect(page).toContain("4 places, 4 rigs, 3 projects");
        expect(page).not.toContain("not read");
      }
      expect(written).toBeGreaterThanOrEqual(ROUNDS);
    },
    60_000 + ROUNDS * 20_000,
  );
});
