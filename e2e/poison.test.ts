import { createServer, request } from "node:http";
import type { AddressInfo } from "node:net";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import {
  hands,
  newProfile,
  openBrowser,
  startApp,
  startPlainDemo,
  untilOffline,
  type RunningApp,
  WAIT_MS,
} from "./browser";

/** How a front answers an address in the server's place; null = it lets the server answer. */
type Poison = (path: string) => "page" | "elsewhere" | null;

/** A front between browser and server, such as a hotel's. */
interface Front {
  readonly url: string;
  /** What it answers itself from now on. */
  answers(poison: Poison): void;
  stop(): void;
}

/** Puts a front before an app; at first it answers nothing itself. */
async function startFront(appUrl: string): Promise<Front> {
  let poison: Poison = () => null;
  const front = createServer((asked, answer) => {
    const what = poison(asked.url ?? "");
    if (what === "page") return answer.setHeader("content-type", "text/html").end("<h1>Please log in</h1>");
    if (what === "elsewhere") return answer.writeHead(302, { location: "/mark.svg" }).end();
    const on = request(appUrl + asked.url, { method: asked.method, headers: asked.headers }, (came) => {
      answer.writeHead(came.statusCode ?? 502, came.headers);
      came.pipe(answer);
    });
    on.on("error", () => answer.destroy());
    asked.pipe(on);
  });
  await new Promise<void>((resolve) => front.listen(0, "127.0.0.1", resolve));
  return {
    url: `http://127.0.0.1:${(front.address() as AddressInfo).port}`,
    answers: (next) => void (poison = next),
    stop: () => void front.close(),
  };
}

describe("a front that answers for the server while the app is fetched", () => {
  const profile = newProfile();
  let app: RunningApp;
  let front: Front;
  let driver: chrome.Driver;
  const state = () => driver.executeScript<string>("return document.documentElement.dataset.offline");
  const keptPages = () =>
    driver.executeScript<number>(
      "return caches.keys().then((names) => Promise.all(names.map((n) => caches.open(n).then((c) => c.keys())))).then((all) => all.flat().length)",
    );

  beforeAll(async () => {
    app = await startApp();
    front = await startFront(app.url);
    driver = await openBrowser(profile.path);
  });
  afterAll(async () => {
    await driver.quit();
    front.stop();
    await app.stop();
    profile.remove();
  });

  // Scripts of charts and pictures are not asked for by the first page: only the worker fetches them.
  it.each([
    ["a script answered with a page", (path: string) => (/YearChart.*\.js$/.test(path) ? "page" : null)],
    ["a script answered from elsewhere", (path: string) => (/YearChart.*\.js$/.test(path) ? "elsewhere" : null)],
    ["the shell answered with a page", (path: string) => (path.startsWith("/shell/") ? "page" : null)],
  ] as const)("%s: nothing is kept, and that is said", async (_, poison) => {
    front.answers(poison);
    const me = hands(driver);
    await driver.get(front.url);
    await me.see("Go, from");
    await driver.wait(
      async () => ["incomplete", "ready"].includes(await state()),
      WAIT_MS,
      "the worker should give up",
    );
    expect(await state()).toBe("incomplete");
    await me.press("Kit");
    await me.press("Data in and out");
    await me.see("did not come whole, so nothing of it was kept");
  });

  it("is fetched as soon as the front is gone, and then opens without its server", async () => {
    front.answers(() => null);
    await driver.get(front.url);
    await hands(driver).see("Go, from");
    await untilOffline(driver);
    const before = await keptPages();
    expect(before).toBeGreaterThan(200);
    // From now on the front answers everything itself: the app is not touched by it.
    front.answers(() => "page");
    await driver.get(`${front.url}/targets/NGC%207000`);
    await hands(driver).see("North America");
    expect(await keptPages()).toBe(before);
  });
});

describe("a front that answers for a script that a page needs", () => {
  const profile = newProfile();
  let app: RunningApp;
  let front: Front;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;

  beforeAll(async () => {
    app = await startPlainDemo();
    front = await startFront(app.url);
    driver = await openBrowser(profile.path);
    me = hands(driver);
    await driver.get(`${front.url}/kit/data`);
    await me.fill("Your name", "Runa Falk");
    await me.press("Save name");
    await me.see("Your name is changed");
  });
  afterAll(async () => {
    await driver.quit();
    front.stop();
    await app.stop();
    profile.remove();
  });
  /** The words stand in every page that is still loading: what counts is that they show. */
  const saysUnloaded = () =>
    driver.wait(
      async () => {
        const [words] = await driver.findElements(me.byText("h1", "The app did not load whole"));
        return (await words?.isDisplayed().catch(() => false)) ?? false;
      },
      WAIT_MS,
      "the page should say that the app did not load",
    );
  /** What the browser remembers of addresses is not what is tried here. */
  const forget = () => driver.sendDevToolsCommand("Network.clearBrowserCache", {});

  it.each([
    ["the first of all", /entry\.client[^/]*\.js$/],
    ["the list of screens", /manifest-[^/]*\.js$/],
    ["the shell's", /assets\/route-[^/]*\.js$/],
  ])("%s: the page says so, and fetching anew brings the app, with all that was entered", async (_, script) => {
    await forget();
    front.answers((path) => (script.test(path) ? "page" : null));
    await driver.get(`${front.url}/kit/data`);
    await saysUnloaded();
    // The front answers everything: nothing is thrown away for it.
    front.answers(() => "page");
    await me.press("Fetch the app anew");
    await me.see("The server does not answer now");
    front.answers(() => null);
    await me.press("Fetch the app anew");
    await me.see("Take it with you");
    expect(await me.value("Your name")).toBe("Runa Falk");
  });

  it("a screen one goes to: that is said, and after fetching anew one gets there", async () => {
    await forget();
    await driver.get(`${front.url}/kit/data`);
    await me.see("Take it with you");
    const season = await driver.executeScript<string>(
      "return Object.values(window.__reactRouterManifest.routes).find((route) => route.path === 'season').module",
    );
    front.answers((path) => (path === season ? "page" : null));
    await me.press("Season");
    await saysUnloaded();
    // What one has still works.
    await me.press("try this page once more");
    await me.see("Take it with you");
    await me.press("Season");
    await saysUnloaded();
    front.answers(() => null);
    await me.press("Fetch the app anew");
    await me.see("Take it with you");
    await me.press("Season");
    await driver.wait(async () => (await driver.getCurrentUrl()).includes("/season"), WAIT_MS, "Season should open");
  });
});
