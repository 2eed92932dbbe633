import { openSync, truncateSync, writeFileSync, closeSync } from "node:fs";
import { join } from "node:path";
import { By } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import {
  hands,
  newProfile,
  openBrowser,
  type RunningApp,
  sharedApp,
  startApp,
  textOf,
  visit,
  WAIT_MS,
} from "./browser";

/** Bad input, a full disk, a private window and two tabs: each says what is wrong and loses nothing. */
describe("what goes wrong", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
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

  it("refuses project files that are empty, too large, no JSON, foreign or newer, and keeps what is there", async () => {
    const file = (name: string, text: string) => {
      const path = join(profile.path, name);
      writeFileSync(path, text);
      return path;
    };
    const huge = join(profile.path, "huge.json");
    closeSync(openSync(huge, "w"));
    truncateSync(huge, 100e6);
    await visit(driver, `${app.url}/kit/data`);
    await me.see("Bring it back");
    const cases = [
      [file("empty.json", ""), "the file is empty"],
      [huge, "larger than a project can be (100 MB"],
      [file("picture.json", "\u0089PNG"), "does not read as JSON"],
      [file("other.json", '{"format":"something"}'), "some other kind of file"],
      [
        file("newer.json", '{"format":"zenithar-bundle","version":9,"records":[]}'),
        "written by a newer version (format 9)",
      ],
    ] as const;
    for (const [path, words] of cases) {
      await driver.findElement(By.css("input[type=file][aria-label='Import a file']")).sendKeys(path);
      await me.see(words);
    }
    await me.see("4 places, 4 rigs, 3 projects");
  });

  it("says when the browser's storage is full, and keeps what was typed", async () => {
    await visit(driver, `${app.url}/kit/places/place-pass`);
    await me.fill("Name", "Pass with a full disk");
    await driver.executeScript(
      "window.realPut = IDBObjectStore.prototype.put; IDBObjectStore.prototype.put = function () { throw new DOMException('no room', 'QuotaExceededError'); };",
    );
    await me.press("Save place");
    await me.see("storage for this app is full");
    expect(await (await me.box("Name")).getAttribute("value")).toBe("Pass with a full disk");
    await driver.executeScript("IDBObjectStore.prototype.put = window.realPut;");
    await me.press("Save place");
    await me.see("Garden behind the mill");
    await me.see("Pass with a full disk");
  });

  it("keeps both versions when two tabs edit the same place, and lets one choose", async () => {
    await visit(driver, `${app.url}/kit/places/place-barn`);
    await me.fill("Name", "Barn, first tab");
    const first = await driver.getWindowHandle();
    await driver.switchTo().newWindow("tab");
    await visit(driver, `${app.url}/kit/places/place-barn`);
    await me.fill("Name", "Barn, second tab");
    await me.press("Save place");
    await me.see("Garden behind the mill");
    await driver.switchTo().window(first);
    expect(await (await me.box("Name")).getAttribute("value")).toBe("Barn, first tab");
    await me.press("Save place");
    await me.see("Changed in two places at once: open it to choose.");
    await me.press("Barn, first tab");
    await me.see("Counts now");
    await me.press("Take this one instead");
    await me.gone("Changed in two places at once");
    await visit(driver, `${app.url}/kit`);
    await me.see("Barn, second tab");
  });

  it("says that a page is left with changes that are not saved, has them still on the way back, and discards them when asked to", async () => {
    await visit(driver, `${app.url}/kit/places/place-garden`);
    await me.fill("Elevation", "263");
    await me.press("Targets");
    await me.see("Not saved yet: the place Garden behind the mill.");
    await visit(driver, `${app.url}/kit/places/place-garden`);
    await me.see("this is what you typed here before");
    expect(await me.value("Elevation")).toBe("263");
    await me.press("Discard it");
    await me.gone("this is what you typed here before");
    expect(await me.value("Elevation")).toBe("240");
    await driver.navigate().refresh();
    expect(await me.value("Elevation")).toBe("240");
  });

  it("deletes at once and brings back with Undo", async () => {
    await visit(driver, `${app.url}/kit`);
    await me.see("Tomasz’s terrace");
    await driver.findElement(By.xpath("//li[contains(., 'Tomasz’s terrace')]//button[contains(., 'Delete')]")).click();
    await me.see("Tomasz’s terrace deleted.");
    await driver.wait(
      async () => (await driver.findElements(By.xpath("//h2[contains(., 'Tomasz’s terrace')]"))).length === 0,
      WAIT_MS,
    );
    await me.press("Undo");
    await driver.wait(
      async () => (await driver.findElements(By.xpath("//h2[contains(., 'Tomasz’s terrace')]"))).length === 1,
      WAIT_MS,
    );
  });

  it("says that an address leads nowhere, in words", async () => {
    await driver.get(`${app.url}/projects/no-such-project/plan`);
    await me.see("There is no such project here");
    await driver.get(`${app.url}/?night=2026-02-30`);
    await me.see("That is no date");
    await driver.get(`${app.url}/targets/Vulcan`);
    await me.see("The catalogue has no object of that name");
  });

  it("works in a private window that stores nothing, and says so", async () => {
    const { identifier } = (await driver.sendAndGetDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", {
      source: "IDBFactory.prototype.open = function () { throw new DOMException('denied', 'SecurityError'); };",
    })) as unknown as { identifier: string };
    await driver.get(app.url);
    await me.see("This browser does not let the app store anything");
    await me.see("Go, from");
    await driver.sendDevToolsCommand("Page.removeScriptToEvaluateOnNewDocument", { identifier });
  });
});

describe("the server", () => {
  it("sends strict headers, compressed immutable assets and a health answer, and starts empty without the demo", async () => {
    const app = await startApp({ ZENITHAR_DEMO_NOW: "" });
    const profile = newProfile();
    const driver = await openBrowser(profile.path);
    try {
      const page = await fetch(app.url);
      const html = await page.text();
      const policy = page.headers.get("content-security-policy")!;
      const nonce = /'nonce-([^']+)'/.exec(policy)![1]!;
      expect(policy).toContain("default-src 'none'");
      expect(policy).not.toMatch(/script-src[^;]*unsafe/);
      const scripts = html.match(/<script[^>]*>/g)!;
      expect(scripts.length).toBeGreaterThan(0);
      expect(scripts.every((s) => s.includes(`nonce="${nonce}"`))).toBe(true);
      expect([
        page.headers.get("x-content-type-options"),
        page.headers.get("referrer-policy"),
        page.headers.get("x-frame-options"),
      ]).toEqual(["nosniff", "no-referrer", "DENY"]);
      expect((await (await fetch(app.url)).text()).includes(nonce)).toBe(false);
      const asset = /\/assets\/[^"']+\.js/.exec(html)![0];
      const script = await fetch(app.url + asset, { headers: { "accept-encoding": "br" } });
      expect([script.headers.get("content-encoding"), script.headers.get("cache-control")]).toEqual([
        "br",
        "public, max-age=31536000, immutable",
      ]);
      expect(await (await fetch(`${app.url}/healthz`)).text()).toBe("ok\n");
      const me = hands(driver);
      await visit(driver, app.url);
      await me.see("I watch from");
      // Over plain http from another machine a browser gives an app nothing to keep things in: said, with the way out.
      await visit(driver, app.url.replace("127.0.0.1", "backyard.example"));
      await me.see("This page came over plain http");
      await driver.sleep(1500); // it stays
      await me.see("This page came over plain http");
      expect(await textOf(driver, "main")).not.toContain("Reading what is kept");
    } finally {
      await driver.quit();
      expect(await app.stop()).toBe(0);
      profile.remove();
    }
  });
});
