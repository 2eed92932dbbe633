import { readdirSync, statSync } from "node:fs";
import type * as chrome from "selenium-webdriver/chrome.js";
import { hands, newProfile, openBrowser, startApp } from "../e2e/browser";

/** Figures of the first minute, in headless Chromium: first visit, first answer, use without the server. npm run bench:start */
const ROUNDS = Number(process.argv[2] ?? 5);
const CLIENT = new URL("../build/client", import.meta.url).pathname;
const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!;
const told = (list: readonly number[]) =>
  `${Math.round(median(list))} ms (${list.map((x) => Math.round(x)).join(", ")})`;

interface Paint {
  readonly first: number;
  readonly largest: number;
  readonly what: string;
  readonly shift: number;
  readonly script: number;
  readonly files: number;
  readonly hydrated: number;
}

/** Paints, layout shift and scripts as sent, of the page as it stands. */
const paintOf = (driver: chrome.Driver): Promise<Paint> =>
  driver.executeAsyncScript<Paint>(`
    const done = arguments[0];
    const seen = (type) => new Promise((r) => { new PerformanceObserver((l) => r(l.getEntries())).observe({ type, buffered: true }); setTimeout(() => r([]), 300); });
    Promise.all([seen("paint"), seen("largest-contentful-paint"), seen("layout-shift")]).then(([paint, largest, shifts]) => {
      const scripts = performance.getEntriesByType("resource").filter((r) => /\\.js$/.test(new URL(r.name).pathname) && r.startTime < (largest.at(-1)?.startTime ?? 1e9) + 50);
      done({
        first: paint.find((p) => p.name === "first-contentful-paint")?.startTime ?? NaN,
        largest: largest.at(-1)?.startTime ?? NaN,
        what: largest.map((l) => Math.round(l.startTime) + " " + (l.element?.tagName ?? "?") + " " + (l.element?.textContent ?? "").slice(0, 30)).join(" | "),
        shift: shifts.filter((s) => !s.hadRecentInput).reduce((sum, s) => sum + s.value, 0),
        script: scripts.reduce((sum, r) => sum + r.encodedBodySize, 0),
        files: scripts.length,
        hydrated: performance.getEntriesByName("library")[0]?.startTime ?? NaN,
      });
    });`);

const app = await startApp();
let isUp = true;
try {
  const firsts: Paint[] = [];
  const offline: number[] = [];
  const fetched: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const profile = newProfile();
    const driver = await openBrowser(profile.path);
    const me = hands(driver);
    await driver.get(app.url);
    await me.see("Go, from");
    await driver.sleep(800);
    firsts.push(await paintOf(driver));
    if (round === 0) {
      await driver.wait(() => driver.executeScript<boolean>("return document.documentElement.dataset.offline === 'ready'"), 60_000); // prettier-ignore
      fetched.push(await driver.executeScript<number>("return performance.now() - performance.timing.loadEventEnd + performance.timing.navigationStart")); // prettier-ignore
      const later: string[] = [];
      for (const [station, words] of [["Targets", "up this night"], ["Projects", "kept, counts"], ["Season", "Keep the night free"], ["Nights", "Print"], ["Log", "What we have"], ["Kit", "Garden behind the mill"], ["Tonight", "Go, from"]] as const) {
        const from = Date.now();
        await me.press(station);
        await me.see(words);
        later.push(`${station} ${Date.now() - from}`);
      } // prettier-ignore
      console.log(`later screens, ms, by hand of the driver: ${later.join(", ")}`);
    }
    await driver.quit();
    profile.remove();
  }
  console.log(`first visit: paint ${told(firsts.map((f) => f.first))}, largest ${told(firsts.map((f) => f.largest))}`);
  console.log(`  largest: ${firsts[0]!.what}`);
  console.log(`  script as sent ${Math.round(median(firsts.map((f) => f.script)) / 1000)} kB in ${firsts[0]!.files} files, layout shift ${median(firsts.map((f) => f.shift)).toFixed(4)}`); // prettier-ignore
  console.log(`  library asked for at ${told(firsts.map((f) => f.hydrated))}`);
  const names = readdirSync(CLIENT, { recursive: true, encoding: "utf8" }).filter((n) => statSync(`${CLIENT}/${n}`).isFile()); // prettier-ignore
  const bytes = (of: (n: string) => boolean) => names.filter(of).reduce((s, n) => s + statSync(`${CLIENT}/${n}`).size, 0) / 1e6; // prettier-ignore
  const plain = (n: string) => !/\.(br|gz)$/.test(n) && n !== "sw.js";
  const sent = names.filter(plain).reduce((s, n) => s + statSync(`${CLIENT}/${names.includes(`${n}.br`) ? `${n}.br` : n}`).size, 0) / 1e6; // prettier-ignore
  console.log(`kept for use without the server: ${names.filter(plain).length} files, ${bytes(plain).toFixed(1)} MB, ${sent.toFixed(1)} MB as sent; ready ${Math.round(fetched[0]! / 100) / 10} s after load`); // prettier-ignore

  // Without the server, cold: the browser is started anew each time.
  const profile = newProfile();
  let driver = await openBrowser(profile.path);
  await driver.get(app.url);
  await hands(driver).see("Go, from");
  await driver.wait(() => driver.executeScript<boolean>("return document.documentElement.dataset.offline === 'ready'"), 60_000); // prettier-ignore
  await app.stop();
  isUp = false;
  for (let round = 0; round < ROUNDS; round++) {
    await driver.quit();
    driver = await openBrowser(profile.path);
    await driver.get(app.url);
    await hands(driver).see("Go, from");
    await driver.sleep(500);
    offline.push((await paintOf(driver)).largest);
  }
  console.log(`without the server, browser started anew: largest paint ${told(offline)}`);
  await driver.quit();
  profile.remove();
} finally {
  if (isUp) await app.stop();
}

const empty = await startApp({ ZENITHAR_DEMO_NOW: "", ZENITHAR_OFFLINE: "off" });
try {
  const answers: number[] = [];
  const news: Paint[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const profile = newProfile();
    const driver = await openBrowser(profile.path);
    const me = hands(driver);
    await driver.get(empty.url);
    await me.see("I watch from");
    await driver.sleep(500);
    news.push(await paintOf(driver));
    await me.fill("Town near by", "Cahors");
    await me.press("Cahors, FR");
    await me.press("refractor 480 mm f/6");
    await me.press("cooled, APS-C, 26 megapixels");
    await me.press("one-shot colour");
    await me.press("suburb: the Milky Way");
    await me.see("the best three, if it is clear");
    answers.push(
      await driver.executeScript<number>("return performance.getEntriesByName('first answer').at(-1).duration"),
    );
    await driver.quit();
    profile.remove();
  }
  console.log(`first visit of somebody new: largest ${told(news.map((f) => f.largest))}, script as sent ${Math.round(median(news.map((f) => f.script)) / 1000)} kB in ${news[0]!.files} files, layout shift ${median(news.map((f) => f.shift)).toFixed(4)}`); // prettier-ignore
  console.log(`first answer after the third choice: ${told(answers)}`);
} finally {
  await empty.stop();
}
