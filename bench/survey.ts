import { By } from "selenium-webdriver";
import { hands, newProfile, openBrowser, startApp } from "../e2e/browser";

/** Pictures of the sky behind a frame's chart: the first with tiles at hand, a step of panning, and how long a tile takes to be made. Reported, never asserted. */
const app = await startApp({ ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z", ZENITHAR_OFFLINE: "off" });
const profile = newProfile();
const driver = await openBrowser(profile.path);
const me = hands(driver);
const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;
try {
  const times: number[] = [];
  for (let tile = 1000; tile < 1012; tile++) {
    const begun = performance.now();
    await (await fetch(`${app.url}/services/survey/simulated/Norder5/Dir0/Npix${tile}.png`)).arrayBuffer();
    times.push(performance.now() - begun);
  }
  console.log(
    `a simulated tile made, packed and sent: ${median(times).toFixed(0)} ms, the first ${times[0]!.toFixed(0)} ms`,
  );
  await driver.get(`${app.url}/projects/project-loop/frame`);
  await me.see("Picture of the sky");
  for (let i = 0; i < 4; i++) await me.press("Closer");
  // Told by the canvas itself: how long from a wish to another picture behind the chart.
  await driver.executeScript(`
    const canvas = document.querySelector("main canvas");
    const draw = CanvasRenderingContext2D.prototype.drawImage;
    CanvasRenderingContext2D.prototype.drawImage = function (...given) {
      draw.apply(this, given);
      if (this.canvas !== canvas) return;
      if (given[0] !== window.shown) window.onOther?.();
      window.shown = given[0];
    };`);
  const drawn = () =>
    driver.executeAsyncScript<number>(`
      const done = arguments[arguments.length - 1];
      const began = performance.now();
      window.onOther = () => { window.onOther = null; done(performance.now() - began); };
      window.wish();`);
  const key = `window.wish = () => document.dispatchEvent(new KeyboardEvent("keydown", { key: "p", bubbles: true }));`;
  await driver.executeScript(key);
  console.log(`first picture with no tile at hand: ${(await drawn()).toFixed(0)} ms (coarse or empty)`);
  await driver.sleep(4000);
  const box = await (await driver.findElement(By.css("main canvas"))).getRect();
  await driver.sleep(1000);
  await driver.executeScript(`
    const canvas = document.querySelector("main canvas");
    window.wish = () => canvas.dispatchEvent(new WheelEvent("wheel", { deltaY: (window.turn = -(window.turn ?? 20)), clientX: ${box.x + 200}, clientY: ${box.y + 200}, bubbles: true, cancelable: true }));`);
  const steps: number[] = [];
  for (let i = 0; i < 12; i++) {
    steps.push(await drawn());
    await driver.sleep(250);
  }
  console.log(
    `a step of the chart until its own picture lies there, ${box.width} × ${box.height} px: ${median(steps).toFixed(0)} ms, of which 40 wait for the hand to rest   aim 50 besides`,
  );
} finally {
  await driver.quit();
  await app.stop();
  profile.remove();
}
