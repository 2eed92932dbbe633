import { hands, newProfile, openBrowser, startPlainDemo } from "../e2e/browser";
import { lightFrame, starPixels } from "../e2e/star-frame";

/** The watched folder in a browser: listing 3,000 files, a frame of 26 megapixels from its last byte to the page, memory over 200 subs: `npx tsx bench/watch.ts`. */
const FOLDER = "(await navigator.storage.getDirectory()).getDirectoryHandle('subs', { create: true })";
const app = await startPlainDemo();
const profile = newProfile();
const driver = await openBrowser(profile.path);
const me = hands(driver);
/** Runs code in the page's own folder. */
const inFolder = <T>(code: string, ...given: unknown[]) =>
  driver.executeAsyncScript<T>(
    `const given = [...arguments]; const done = given.pop();
     (async () => { const subs = await ${FOLDER};
       const write = async (name, bytes) => { const file = await (await subs.getFileHandle(name, { create: true })).createWritable(); await file.write(bytes); await file.close(); };
       const bytesOf = (text) => Uint8Array.from(atob(text), (c) => c.charCodeAt(0)); ${code} })().then(done, (e) => done(String(e)));`,
    ...given,
  );
const startOf = (i: number) =>
  new Date(Date.UTC(2026, 11, 5 - Math.floor(i / 100), 17) + (i % 100) * 309_000).toISOString().slice(0, 19);
const ms = (from: number) => `${Math.round(performance.now() - from)} ms`;

try {
  await driver.manage().setTimeouts({ script: 600_000 });
  await driver.sendDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", {
    source: `globalThis.showDirectoryPicker = async () => ${FOLDER};`,
  });
  await driver.get(`${app.url}/log`);
  await me.see("Watch a folder");
  await inFolder("for (let i = 0; i < 3000; i++) await write(`old${i}.fits`, new Uint8Array(2880));");
  let from = performance.now();
  await me.press("Watch a folder");
  await me.see("3000 files in it");
  console.log(`listing 3,000 files, from the press to the page: ${ms(from)} (aim 2,000 ms)`);

  const [width, height] = [6248, 4176];
  const tile = starPixels(260, 1.6, 1).toString("base64");
  const head = lightFrame(startOf(0), 260, Buffer.alloc(0)).toString("latin1").slice(0, 2880);
  const sized = head
    .replace(/NAXIS1 {2}= *\d*/, `NAXIS1  = ${String(width).padStart(20)}`)
    .replace(/NAXIS2 {2}= *\d*/, `NAXIS2  = ${String(height).padStart(20)}`);
  from = await inFolder<number>(
    `const [head, text, width, height] = given; const tile = bytesOf(text);
     const all = new Uint8Array(2880 * Math.ceil((2880 + 2 * width * height) / 2880));
     all.set(Uint8Array.from(head, (c) => c.charCodeAt(0)));
     for (let y = 0; y < height; y++) for (let x = 0; x + 260 <= width; x += 260)
       all.set(tile.subarray(520 * (y % 260), 520 * (y % 260) + 520), 2880 + 2 * (y * width + x));
     await write("large.fits", all); return performance.timeOrigin + performance.now();`,
    sized, tile, width, height,
  ); // prettier-ignore
  await me.see("number 1 of its like tonight");
  const shown = await driver.executeScript<number>("return performance.timeOrigin + performance.now()");
  console.log(`26 Mpx frame from its last byte to the page, half a second of waiting whether it still grows among it: ${Math.round(shown - from)} ms (aim 1,500 ms)`); // prettier-ignore

  const heap = async () => {
    await driver.sendDevToolsCommand("HeapProfiler.collectGarbage", {});
    return (await driver.executeScript<number>("return performance.memory.usedJSHeapSize")) / 1e6;
  };
  const land = async (first: number, count: number) => {
    const files = Array.from({ length: count }, (_, i) => [`m${first + i}.fits`, lightFrame(startOf(first + i), 260, starPixels(260, 1.6, first + i)).toString("base64")]); // prettier-ignore
    await inFolder("for (const [name, text] of given[0]) await write(name, bytesOf(text));", files);
    await me.see(`${first + count} added since`);
  };
  await land(1, 99);
  const before = await heap();
  await land(100, 200);
  console.log(`memory of the page after 100 subs ${before.toFixed(1)} MB, after 300 subs ${(await heap()).toFixed(1)} MB (aim: flat within 50 MB over 800)`); // prettier-ignore
} finally {
  await driver.quit();
  await app.stop();
  profile.remove();
}
