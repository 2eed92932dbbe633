/**
 * What reading large files takes of memory: `npx tsx bench/large-files.ts`. Six TIFFs of 360 MB at once, dropped on the log; the
 * resident memory of the browser's page processes before and at most while they are read. Stated: 300 MB more at most.
 */
import { mkdtempSync, openSync, closeSync, ftruncateSync, readdirSync, readFileSync, rmSync, writeSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { By } from "selenium-webdriver";
import { hands, newProfile, openBrowser, startApp } from "../e2e/browser";

const COUNT = 6;
const BYTES = 360e6;
const MB = 1e6;

/** A TIFF by TIFF 6.0, little-endian: one directory with size, model and time, and one with the exposure. */
function head(second: number): Buffer {
  const texts = { model: "Sample camera\0", time: `2026:12:04 22:${String(second).padStart(2, "0")}:00\0` };
  const buffer = Buffer.alloc(400);
  buffer.write("II", 0);
  buffer.writeUInt16LE(42, 2);
  buffer.writeUInt32LE(8, 4);
  const directory = (at: number, entries: readonly (readonly [number, number, number, number])[]) => {
    buffer.writeUInt16LE(entries.length, at);
    entries.forEach(([tag, type, count, value], i) => {
      const o = at + 2 + 12 * i;
      buffer.writeUInt16LE(tag, o);
      buffer.writeUInt16LE(type, o + 2);
      buffer.writeUInt32LE(count, o + 4);
      buffer.writeUInt32LE(value, o + 8);
    });
  };
  buffer.write(texts.model, 200, "latin1");
  buffer.write(texts.time, 230, "latin1");
  buffer.writeUInt32LE(60, 260); // 60/1 s
  buffer.writeUInt32LE(1, 264);
  directory(8, [[256, 4, 1, 12_000], [257, 4, 1, 10_000], [272, 2, texts.model.length, 200], [34_665, 4, 1, 120]]); // prettier-ignore
  directory(120, [[33_434, 5, 1, 260], [36_867, 2, texts.time.length, 230]]); // prettier-ignore
  return buffer;
}

/** Resident memory of all page processes of a profile, bytes. */
function residentBytes(profile: string): number {
  let sum = 0;
  for (const pid of readdirSync("/proc").filter((name) => /^\d+$/.test(name)))
    try {
      const command = readFileSync(`/proc/${pid}/cmdline`, "utf8");
      if (!command.includes("--type=renderer") || !command.includes(profile)) continue;
      sum += 1024 * Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0);
    } catch {
      // Gone meanwhile.
    }
  return sum;
}

const folder = mkdtempSync(join(tmpdir(), "large-"));
const app = await startApp();
const profile = newProfile();
const driver = await openBrowser(profile.path);
try {
  const me = hands(driver);
  const paths = Array.from({ length: COUNT }, (_, i) => {
    const path = join(folder, `light-${i}.tif`);
    const file = openSync(path, "w");
    writeSync(file, head(i), 0);
    ftruncateSync(file, BYTES);
    closeSync(file);
    return path;
  });
  await driver.get(`${app.url}/log`);
  await me.see("What we have");
  await driver.sleep(8000); // the page is at rest
  const before = residentBytes(profile.path);
  let most = before;
  const timer = setInterval(() => (most = Math.max(most, residentBytes(profile.path))), 20);
  const begun = performance.now();
  await driver.findElement(By.css("input[type=file]")).sendKeys(paths.join("\n"));
  await driver.wait(async () => /of 6|6 files|light-0/.test(await me.text()), 120_000);
  await driver.sleep(1500);
  clearInterval(timer);
  console.log(/[^\n]*light-0[^\n]*/.exec(await me.text())?.[0] ?? (await me.text()).slice(0, 600));
  console.log(`${COUNT} TIFFs of ${BYTES / MB} MB: ${((performance.now() - begun) / 1000 - 1.5).toFixed(1)} s`);
  console.log(
    `pages before ${(before / MB).toFixed(0)} MB, at most ${(most / MB).toFixed(0)} MB: +${((most - before) / MB).toFixed(0)} MB (stated: 300)`,
  );
} finally {
  await driver.quit();
  await app.stop();
  profile.remove();
  rmSync(folder, { recursive: true, force: true });
}
