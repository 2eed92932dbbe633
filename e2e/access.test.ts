import { By, until } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ALL_RULES, breachesOf, COLOUR_RULES } from "./axe";
import { hands, newProfile, openBrowser, type RunningApp, sharedApp, visit, WAIT_MS } from "./browser";

/** WCAG 2.2 A and AA by axe-core on every main view, in Day and Dusk; and the whole app by keyboard. */
describe("access", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  const VIEWS = [
    ["/", "Where the night goes"],
    ["/targets", "up this night"],
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
    ["/nights/live", "Next:"],
    ["/nights/rehearsal?of=gap", "To the next decision"],
    ["/kit/places/place-garden", "Clear nights by month"],
    ["/kit/rigs", "Add a rig"],
    ["/kit/rigs/rig-refractor", "What it sees"],
    ["/kit/rigs/rig-refractor/checklist", "Counterweights on before"],
    ["/kit/filters", "A new filter"],
    ["/start", "I watch from"],
    ["/kit/data", "Bring it back"],
    ["/kit/sources", "Where the numbers come from"],
    ["/kit/glossary", "One word a thing"],
  ] as const;
  beforeAll(async () => {
    app = sharedApp();
    driver = await openBrowser(profile.path);
    await visit(driver, app.url);
    await hands(driver).see("Go, from");
  });
  afterAll(async () => {
    await driver.quit();
    await app.stop();
    profile.remove();
  });

  it("finds no breach of WCAG 2.2 AA on any main view in day, nor one that comes with the colours of dusk and ember", async () => {
    const breaches: string[] = [];
    await driver.manage().addCookie({ name: "theme", value: "day" });
    for (const [path, words] of VIEWS) {
      await visit(driver, app.url + path);
      await hands(driver).see(words);
      breaches.push(...(await breachesOf(driver, path, "day", ALL_RULES)));
      const bare = await driver.executeScript<number>("return document.querySelectorAll('th:not([scope])').length");
      if (bare > 0) breaches.push(`${path}: ${bare} table headers do not say of what`);
      // The page is the same, only its colours are others.
      breaches.push(...(await breachesOf(driver, path, "dusk", COLOUR_RULES)));
      breaches.push(...(await breachesOf(driver, path, "ember", COLOUR_RULES)));
    }
    expect(breaches).toEqual([]);
  });

  it("goes round all stations, the nights, the help sheet and the search by keys alone", async () => {
    const me = hands(driver);
    await visit(driver, app.url);
    await me.see("Go, from");
    const press = (key: string) => driver.actions().sendKeys(key).perform();
    await press("2");
    await me.see("up this night");
    await press("]");
    await me.see("What suits Sun 6 Dec?");
    await press("t");
    await me.see("What suits Sat 5 Dec?");
    await press("?");
    await me.see("The night before");
    await press("\uE00C"); // Escape
    await me.gone("The night before");
    // Single keys can be switched off, and on again; what needs Ctrl goes on working.
    await me.press("Keys");
    const single = await driver.wait(until.elementLocated(By.xpath("//label[contains(., 'Single keys work')]/input")), WAIT_MS); // prettier-ignore
    await single.click();
    await press("\uE00C");
    await me.gone("The night before");
    await press("3");
    await driver.sleep(300);
    await me.see("What suits Sat 5 Dec?");
    await me.press("Keys");
    await me.see("The night before");
    await driver.findElement(By.xpath("//label[contains(., 'Single keys work')]/input")).click();
    await press("\uE00C");
    await me.gone("The night before");
    await press("3");
    await me.see("kept, counts");
  });

  it("holds on a phone lying on its side, at twice the size, with wider text, in one's own colours and without motion", async () => {
    const breaches: string[] = [];
    const pages = VIEWS.filter(([path]) => ["/", "/projects", "/season", "/nights", "/kit/rigs/rig-refractor"].includes(path)); // prettier-ignore
    const media = (features: readonly { readonly name: string; readonly value: string }[]) =>
      driver.sendDevToolsCommand("Emulation.setEmulatedMedia", { features });
    const size = (width: number, height: number, deviceScaleFactor: number) =>
      driver.sendDevToolsCommand("Emulation.setDeviceMetricsOverride", {
        width,
        height,
        deviceScaleFactor,
        mobile: false,
      });
    const isWithin = () => driver.executeScript<boolean>("return document.documentElement.scrollWidth <= innerWidth");
    for (const [path, words] of pages) {
      await size(844, 390, 1);
      await visit(driver, app.url + path);
      await hands(driver).see(words);
      breaches.push(...(await breachesOf(driver, `${path} on its side`, "dusk", ALL_RULES)));
      expect(await isWithin(), `${path} on its side`).toBe(true);
      await size(640, 400, 2); // 1280 x 800 at 200 %
      breaches.push(...(await breachesOf(driver, `${path} at 200 %`, "dusk", ALL_RULES)));
      expect(await isWithin(), `${path} at 200 %`).toBe(true);
      // The spacing of success criterion 1.4.12.
      await driver.executeScript(
        "const s = document.createElement('style'); s.id = 'wide'; s.nonce = document.querySelector('script[nonce]').nonce; s.textContent = '* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important } p { margin-bottom: 2em !important }'; document.head.append(s)",
      );
      await size(1280, 800, 1);
      expect(await isWithin(), `${path} with wider text`).toBe(true);
      const cut = await driver.executeScript<string[]>(
        `return [...document.querySelectorAll('main button, main a, main label, main p, main h1, main h2, nav a')]
           .filter((e) => e.checkVisibility() && !e.closest('[aria-hidden=true], .sr-only, .truncate') && !e.querySelector('.truncate'))
           .filter((e) => ['hidden', 'clip'].includes(getComputedStyle(e).overflowX) && e.scrollWidth > e.clientWidth + 1)
           .map((e) => e.tagName + ' ' + e.textContent.slice(0, 40))`,
      );
      expect(cut, `${path} with wider text`).toEqual([]);
      await driver.executeScript("document.getElementById('wide').remove()");
      await media([{ name: "forced-colors", value: "active" }]);
      const unmarked = await driver.executeScript<string[]>(
        `return [...document.querySelectorAll('[aria-current]:not([aria-current=false])')]
           .filter((e) => e.checkVisibility() && getComputedStyle(e).outlineStyle !== 'solid').map((e) => e.textContent)`,
      );
      expect(unmarked, `${path} in one's own colours`).toEqual([]);
      await media([{ name: "prefers-reduced-motion", value: "reduce" }]);
      const moving = await driver.executeScript<number>(
        `return [...document.querySelectorAll('*')].filter((e) => { const s = getComputedStyle(e); return parseFloat(s.animationDuration) > 0.02 && s.animationName !== 'none' || parseFloat(s.transitionDuration) > 0.02 }).length`,
      );
      expect(moving, `${path} without motion`).toBe(0);
      await media([]);
    }
    await driver.sendDevToolsCommand("Emulation.clearDeviceMetricsOverride", {});
    expect(breaches).toEqual([]);
  });

  describe("on a phone", () => {
    const phone = newProfile();
    let hand: Awaited<ReturnType<typeof openBrowser>>;
    let there: ReturnType<typeof hands>;
    beforeAll(async () => {
      hand = await openBrowser(phone.path, { width: 390, height: 844 });
      there = hands(hand);
      await hand.sendDevToolsCommand("Emulation.setTouchEmulationEnabled", { enabled: true, maxTouchPoints: 5 });
      await hand.sendDevToolsCommand("Emulation.setEmulatedMedia", {
        features: [{ name: "pointer", value: "coarse" }],
      });
    });
    afterAll(async () => {
      await hand.quit();
      phone.remove();
    });

    it("has room for a fingertip on a phone, for a glove at night; what one presses outside comes after the verdict", async () => {
      /** Controls of a page that are smaller than that; links and words within lines of text keep their line. */
      const smaller = (leastPx: number) =>
        hand.executeScript<string[]>(
          `const inText = (e) => e.matches('.in-text') || (e.matches('a:not(.is-button)') && !e.closest('nav') && !e.parentElement.matches('td, th, li, h2, h3, dd'));
         return [...document.querySelectorAll('main button, main a, main summary, main select, main textarea, main input:not([type=hidden]), nav a')]
           .filter((e) => e.checkVisibility() && !inText(e))
           .map((e) => (e.matches('input[type=checkbox], input[type=radio]') && e.closest('label')) || e)
           .map((e) => [e, e.getBoundingClientRect()])
           .filter(([, r]) => r.width > 0 && (r.width < arguments[0] - 0.5 || r.height < arguments[0] - 0.5))
           .map(([e, r]) => e.tagName + ' ' + Math.round(r.width) + ' x ' + Math.round(r.height) + ' ' + (e.getAttribute('aria-label') ?? e.textContent).slice(0, 40))`,
          leastPx,
        );
      for (const [theme, least] of [["dusk", 44], ["ember", 48]] as const) {
        await hand.get(`${app.url}/healthz`);
        await hand.manage().addCookie({ name: "theme", value: theme });
        for (const [path, until] of [["/", "Look up"], ["/nights", "Checklist"], ["/log", "What we have"], ["/projects/project-loop/plan", "Its nights"], ["/kit/rigs/new", "Choose what comes nearest"]] as const) {
          await visit(hand, `${app.url}${path}`);
          await there.see(until);
          expect(await smaller(least), `${path} in ${theme}`).toEqual([]);
          expect(await hand.executeScript("return document.documentElement.scrollWidth <= innerWidth"), path).toBe(true);
        } // prettier-ignore
      } // prettier-ignore
      // Four stations and "More" at the bottom; the others behind it.
      const bar = await hand.executeScript<string[]>("return [...document.querySelectorAll('nav[aria-label=Stations] > *')].filter((e) => e.checkVisibility()).map((e) => e.textContent.trim())"); // prettier-ignore
      expect(bar).toEqual(["Tonight", "Targets", "Projects", "Log", "More"]);
      await visit(hand, app.url);
      await there.see("Look up");
      const top = (words: string) =>
        there.see(words).then((e) => hand.executeScript<number>("return arguments[0].getBoundingClientRect().top", e));
      expect(await top("It is clear")).toBeGreaterThan(await top("Go, from"));
      expect(await top("It is clear")).toBeLessThan(await top("Worth of the night"));
    });

    it("drags the sky with a finger, zooms with two, and moves the frame only when the finger rests on it", async () => {
      await visit(hand, `${app.url}/projects/project-loop/frame`);
      const chart = await hand.wait(until.elementLocated(By.css("canvas[role=application]")), WAIT_MS);
      await hand.executeScript("arguments[0].scrollIntoView({ block: 'center' })", chart);
      const { left, top, width, height } = await hand.executeScript<
        Record<"left" | "top" | "width" | "height", number>
      >("return arguments[0].getBoundingClientRect().toJSON()", chart);
      expect(width).toBeLessThanOrEqual(390);
      const middle = { x: left + width / 2, y: top + height / 2 };
      const touch = (type: "Start" | "Move" | "End", ...points: readonly (readonly [dx: number, dy: number])[]) =>
        hand.sendDevToolsCommand("Input.dispatchTouchEvent", {
          type: `touch${type}`,
          touchPoints: points.map(([dx, dy], id) => ({ x: middle.x + dx, y: middle.y + dy, id })),
        });
      // As it is spoken: "declination plus 57 degrees 30 minutes 12 seconds".
      const declination = async () => {
        const [, sign, ...dms] = /declination (plus|minus) (\d+) degrees? (\d+) minutes? (\d+) second/.exec((await chart.getAttribute("aria-label")) ?? "") ?? []; // prettier-ignore
        const [d, m, s] = dms.map(Number);
        return (sign === "minus" ? -1 : 1) * (d! + m! / 60 + s! / 3600);
      };
      const dragged = async (dy: number, restsMs: number) => {
        const before = await declination();
        await touch("Start", [0, 0]);
        await hand.sleep(restsMs);
        for (let step = 1; step <= 4; step++) await touch("Move", [0, (dy * step) / 4]);
        await touch("End");
        return (await declination()) - before;
      };
      expect(await dragged(40, 0)).toBe(0); // the sky went, the frame stayed
      await dragged(-40, 0);
      const far = await dragged(40, 700);
      expect(far).toBeLessThan(-0.1); // down on the chart is south
      await dragged(-40, 700);
      const still = await declination();
      await touch("Start", [-40, 0], [40, 0]);
      for (let step = 1; step <= 4; step++) await touch("Move", [-40 - 10 * step, 0], [40 + 10 * step, 0]);
      await touch("End");
      expect(await declination()).toBe(still);
      expect((await dragged(40, 700)) / far).toBeCloseTo(0.5, 1); // twice as large: the same way is half as far
    });

    it("moves a point of the skyline finely under a magnifier, puts one down by a tap, and lets the page scroll", async () => {
      await visit(hand, `${app.url}/kit/places/place-garden`);
      await there.see("Clear nights by month");
      const panorama = await hand.findElement(By.css("svg[aria-label^=Panorama]"));
      // What comes later moves the page: a finger goes where the panorama has come to rest.
      const hasSettled = () =>
        hand.executeAsyncScript<boolean>(
          `const [panorama, done] = arguments; panorama.scrollIntoView({ block: "center" });
           const { y } = panorama.getBoundingClientRect();
           setTimeout(() => done(panorama.getBoundingClientRect().y === y), 400)`,
          panorama,
        );
      await hand.wait(hasSettled, WAIT_MS, "the page should come to rest");
      const points = async () =>
        (await there.value("Points"))
          .trim()
          .split("\n")
          .map((l) => l.split(" ").map(Number));
      const before = await points();
      const { x, y, width, left, top } = await hand.executeScript<Record<"x" | "y" | "width" | "left" | "top", number>>(
        `const middle = (r) => ({ x: r.x + r.width / 2, y: r.y + r.height / 2 });
         const { width, left, top } = arguments[0].getBoundingClientRect();
         return { ...middle(arguments[0].querySelectorAll('g[role=button]')[2].getBoundingClientRect()), width, left, top };`,
        panorama,
      );
      const touch = (type: "Start" | "Move" | "End", ...points: readonly { x: number; y: number }[]) =>
        hand.sendDevToolsCommand("Input.dispatchTouchEvent", { type: `touch${type}`, touchPoints: points });
      await touch("Start", { x: x + 8, y: y - 6 }); // beside the point, as fingers are
      for (let step = 1; step <= 3; step++) await touch("Move", { x: x + 8 + step * 10, y: y - 6 });
      expect(await (await there.see("Point ·")).isDisplayed()).toBe(true);
      await touch("End");
      await there.gone("Point ·");
      const after = await points();
      expect(after.length).toBe(before.length);
      expect(after[2]![0]! - before[2]![0]!).toBeCloseTo((30 * 360) / width / 4, 0);
      expect(Math.abs(after[2]![0]! - before[2]![0]!)).toBeLessThan(22);
      // A tap on the sky puts a point down where it is; what scrolls the page puts none.
      const tap = { x: left + width * 0.62, y: top + 20 };
      await touch("Start", tap);
      await touch("End");
      await hand.wait(async () => (await points()).length === before.length + 1, WAIT_MS, "a point is put down");
      const added = await points();
      expect(added.some(([azimuth]) => Math.abs(azimuth! - 0.62 * 360) < 2)).toBe(true);
      const elsewhere = { x: left + width * 0.5, y: top + 15 };
      await touch("Start", elsewhere);
      for (let step = 1; step <= 4; step++) await touch("Move", { x: elsewhere.x, y: elsewhere.y - 25 * step });
      await touch("End");
      expect((await points()).length).toBe(added.length);
      await there.press("Undo");
      await hand.wait(async () => (await points()).length === after.length, WAIT_MS, "the point is taken back");
      expect(await points()).toEqual(after);
    });

    it("tells to a tap what only a hover told: UTC of a local time", async () => {
      await visit(hand, `${app.url}/nights`);
      await there.see("Checklist");
      const time = await hand.findElement(By.css("main li time"));
      const utc = await time.getAttribute("title");
      expect(utc).toMatch(/UTC/);
      await hand.executeScript("arguments[0].scrollIntoView({ block: 'center' })", time);
      const { x, y } = await hand.executeScript<Record<"x" | "y", number>>("const r = arguments[0].getBoundingClientRect(); return { x: r.x + r.width / 2, y: r.y + r.height / 2 }", time); // prettier-ignore
      await hand.sendDevToolsCommand("Input.dispatchTouchEvent", { type: "touchStart", touchPoints: [{ x, y }] });
      await hand.sendDevToolsCommand("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
      await hand.wait(until.elementLocated(By.xpath(`//*[@role='dialog'][normalize-space(.)=${JSON.stringify(utc)}]`)), WAIT_MS); // prettier-ignore
    });
  });
});
