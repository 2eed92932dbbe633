import axe from "axe-core";
import type { AxeResults } from "axe-core";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, newProfile, openBrowser, startApp, type RunningApp } from "./browser";

/** WCAG 2.2 A and AA by axe-core on every main view, in Day and Dusk; and the whole app by keyboard. */
describe("access", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  const VIEWS = [
    ["/", "Where the night goes"],
    ["/targets", "usable this night"],
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
    ["/kit/rigs/rig-refractor", "What it sees"],
    ["/kit/data", "Bring it back"],
    ["/kit/sources", "Where the numbers come from"],
  ] as const;
  beforeAll(async () => {
    app = await startApp();
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
    const check = async (path: string, theme: string, options: object) => {
      const results = await driver.executeAsyncScript<AxeResults>(
        `const [done, options] = [arguments[2], arguments[1]];
        document.documentElement.dataset.theme = arguments[0];
        requestAnimationFrame(() => {
          document.getAnimations().forEach((a) => a.finish()); // colours fade into each other
          axe.run(document, options).then(done);
        });`,
        theme,
        options,
      );
      for (const v of results.violations)
        breaches.push(
          `${path} in ${theme}, ${v.id}: ${v.nodes
            .slice(0, 3)
            .map((n) => `${n.target.join(" ")} ${n.failureSummary?.split("\n")[1] ?? ""}`)
            .join(" | ")}`,
        );
    };
    await driver.manage().addCookie({ name: "theme", value: "day" });
    for (const [path, words] of VIEWS) {
      await driver.get(app.url + path);
      await hands(driver).see(words);
      await driver.executeScript(axe.source);
      await check(path, "day", { runOnly: ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"] });
      // The page is the same, only its colours are others.
      await check(path, "dusk", { runOnly: { type: "rule", values: ["color-contrast", "link-in-text-block"] } });
    }
    expect(breaches).toEqual([]);
  });

  it("goes round all stations, the nights, the help sheet and the search by keys alone", async () => {
    const me = hands(driver);
    await driver.get(app.url);
    await me.see("Go, from");
    const press = (key: string) => driver.actions().sendKeys(key).perform();
    await press("2");
    await me.see("usable this night");
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
