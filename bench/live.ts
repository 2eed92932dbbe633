import { hands, newProfile, openBrowser, startPlainDemo } from "../e2e/browser";

/** A press beside the mount on a phone of 390 px, four times slower than this machine: from the finger to the next paint, and to what it wrote: `npx tsx bench/live.ts`. */
const SLOWER = 4;
const app = await startPlainDemo();
const profile = newProfile();
const driver = await openBrowser(profile.path, { width: 390, height: 844 });
const me = hands(driver);

/** Presses the button with these words, and says how long it took to the next paint, and until the page says something, ms. */
const press = (button: string, words: string) =>
  driver.executeAsyncScript<{ readonly paint: number; readonly told: number }>(
    `const [label, words, done] = arguments;
     const button = [...document.querySelectorAll("main button")].find((b) => b.textContent.trim().startsWith(label));
     const from = performance.now(); let paint = 0;
     const look = () => { if (document.querySelector("main").innerText.includes(words)) requestAnimationFrame(() => setTimeout(() => done({ paint, told: performance.now() - from }))); else requestAnimationFrame(look); };
     button.click();
     requestAnimationFrame(() => setTimeout(() => { paint = performance.now() - from; look(); }));`,
    button,
    words,
  );

try {
  await driver.get(app.url);
  await me.see("Go, from");
  await driver.get(`${app.url}/nights/live`);
  await me.see("Next:");
  await driver.sendDevToolsCommand("Emulation.setCPUThrottlingRate", { rate: SLOWER });
  const presses = [["Begun", "Take it back"], ["Trouble", "What went wrong"], ["Back", "Trouble"], ["Focused", "Focuser at"], ["Focused now", "Written down tonight: 2"], ["Cloud came", "Cloud since"], ["It cleared", "Written down tonight: 4"]] as const; // prettier-ignore
  for (const [button, words] of presses) {
    // A press before is still being written down: nobody is that fast.
    await driver.wait(async () => driver.executeScript<boolean>("return [...document.querySelectorAll('main button')].some((b) => b.textContent.trim().startsWith(arguments[0]) && !b.disabled)", button), 30_000); // prettier-ignore
    const { paint, told } = await press(button, words);
    console.log(`${button.padEnd(12)} next paint ${paint.toFixed(0).padStart(5)} ms (aim 50), told ${told.toFixed(0).padStart(6)} ms`); // prettier-ignore
  }
} finally {
  await driver.quit();
  await app.stop();
  profile.remove();
}
