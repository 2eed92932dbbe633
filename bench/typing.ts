import { By, until } from "selenium-webdriver";
import { hands, newProfile, openBrowser, startApp } from "../e2e/browser";

/**
 * How long a keystroke in the target search takes to be painted, with the whole catalogue loaded: the browser's own event
 * timing (to the next paint, in steps of 8 ms), and the time until the list has changed. Reported, never asserted.
 */
const WORDS = ["ngc 6960", "veil", "sh2-132", "m81", "20h50m +31"];
const profile = newProfile();
const app = await startApp({ ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z" });
const driver = await openBrowser(profile.path);
const me = hands(driver);
try {
  await driver.get(`${app.url}/targets`);
  await driver.wait(until.elementLocated(By.css("[role=grid] a")), 30_000);
  await driver.executeScript(`
    window.paints = []; window.lists = []; window.typedAt = 0;
    new PerformanceObserver((l) => l.getEntries().forEach((e) => { if (e.name === "keydown") window.paints.push(e.duration); }))
      .observe({ type: "event", durationThreshold: 16, buffered: false });
    document.addEventListener("input", () => { window.typedAt = performance.now(); }, true);
    new MutationObserver(() => { if (window.typedAt) { window.lists.push(performance.now() - window.typedAt); window.typedAt = 0; } })
      .observe(document.querySelector("main"), { subtree: true, childList: true, characterData: true });
  `);
  const box = await me.box("Find");
  let keys = 0;
  for (const word of WORDS) {
    for (const letter of word) {
      await box.sendKeys(letter);
      keys++;
      await driver.sleep(120);
    }
    await me.fill("Find", "");
    await driver.sleep(300);
  }
  const { paints, lists } = await driver.executeScript<{ paints: number[]; lists: number[] }>(
    "return { paints: window.paints, lists: window.lists }",
  );
  const show = (name: string, times: readonly number[], aim: number) => {
    const sorted = [...times].sort((a, b) => a - b);
    const at = (share: number) =>
      (sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0).toFixed(0);
    console.log(`${name.padEnd(52)} median ${at(0.5)} ms, 95 % ${at(0.95)} ms, worst ${at(1)} ms   aim ${aim} ms`);
  };
  console.log(`${keys} keystrokes; ${keys - paints.length} painted within 16 ms and therefore not counted below`);
  show("keystroke to paint, those above 16 ms", paints, 50);
  show("keystroke to a changed list", lists, 50);
} finally {
  await driver.quit();
  await app.stop();
  profile.remove();
}
