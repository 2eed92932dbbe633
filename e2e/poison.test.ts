import { createServer, request, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, newProfile, openBrowser, startApp, untilOffline, type RunningApp, WAIT_MS } from "./browser";

/** A front between browser and server, such as a hotel's: it answers some addresses in the server's place. */
describe("a front that answers for the server while the app is fetched", () => {
  const profile = newProfile();
  let app: RunningApp;
  let front: Server;
  let url: string;
  let driver: chrome.Driver;
  let poisons: (path: string) => "page" | "elsewhere" | null = () => null;
  const state = () => driver.executeScript<string>("return document.documentElement.dataset.offline");
  const keptPages = () =>
    driver.executeScript<number>(
      "return caches.keys().then((names) => Promise.all(names.map((n) => caches.open(n).then((c) => c.keys())))).then((all) => all.flat().length)",
    );

  beforeAll(async () => {
    app = await startApp();
    front = createServer((asked, answer) => {
      const what = poisons(asked.url ?? "");
      if (what === "page") return answer.setHeader("content-type", "text/html").end("<h1>Please log in</h1>");
      if (what === "elsewhere") return answer.writeHead(302, { location: "/mark.svg" }).end();
      const on = request(app.url + asked.url, { method: asked.method, headers: asked.headers }, (came) => {
        answer.writeHead(came.statusCode ?? 502, came.headers);
        came.pipe(answer);
      });
      on.on("error", () => answer.destroy());
      asked.pipe(on);
    });
    await new Promise<void>((resolve) => front.listen(0, "127.0.0.1", resolve));
    url = `http://127.0.0.1:${(front.address() as AddressInfo).port}`;
    driver = await openBrowser(profile.path);
  });
  afterAll(async () => {
    await driver.quit();
    front.close();
    await app.stop();
    profile.remove();
  });

  // Scripts of charts and pictures are not asked for by the first page: only the worker fetches them.
  it.each([
    ["a script answered with a page", (path: string) => (/YearChart.*\.js$/.test(path) ? "page" : null)],
    ["a script answered from elsewhere", (path: string) => (/YearChart.*\.js$/.test(path) ? "elsewhere" : null)],
    ["the shell answered with a page", (path: string) => (path.startsWith("/shell/") ? "page" : null)],
  ] as const)("%s: nothing is kept, and that is said", async (_, front) => {
    poisons = front;
    const me = hands(driver);
    await driver.get(url);
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
    poisons = () => null;
    await driver.get(url);
    await hands(driver).see("Go, from");
    await untilOffline(driver);
    const before = await keptPages();
    expect(before).toBeGreaterThan(200);
    // From now on the front answers everything itself: the app is not touched by it.
    poisons = () => "page";
    await driver.get(`${url}/targets/NGC%207000`);
    await hands(driver).see("North America");
    expect(await keptPages()).toBe(before);
  });
});
