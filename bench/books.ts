import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { By } from "selenium-webdriver";
import type { Heads, StoredRecord } from "~/core/crew";
import { mergeStores } from "~/core/crew";
import { coverageMap, depthSteps, frameCorners } from "~/core/framing";
import { hands, newProfile, openBrowser, startApp } from "../e2e/browser";

/**
 * The books: 1,000 headers dropped and looked at, 1,000 subs measured, a merge of two projects of 100,000 entries, a coverage map of
 * 60 frames, and a log of 20,000 lines scrolled. In the browser where a person would see it. Reported, never asserted.
 */
const report = (name: string, ms: number, aim: string) =>
  console.log(`${name.padEnd(74)} ${ms.toFixed(1).padStart(9)} ms   aim ${aim}`);

function median(runs: number, work: () => unknown): number {
  work();
  const times = Array.from({ length: runs }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  }).sort((a, b) => a - b);
  return times[runs >> 1]!;
}

const centre = { frame: "icrs" as const, raDeg: 70.84, decDeg: 46.7 };
const sixty = Array.from({ length: 60 }, (_, i) => ({
  corners: frameCorners({ centre: { ...centre, raDeg: 70 + (i % 6) * 0.9, decDeg: 46 + Math.floor(i / 6) * 0.4 }, positionAngleDeg: (i * 7) % 20 }, 140, 95),
  weight: 1 + (i % 5),
})); // prettier-ignore
report("coverage map of 60 frames, with its steps", median(7, () => { const map = coverageMap({ centre, positionAngleDeg: 0 }, sixty)!; return depthSteps(map, sixty); }), "300 ms"); // prettier-ignore

/** A store of 100,000 entries, half of which the other side has too, some of them changed since. */
function store(side: number): Map<string, Heads> {
  const heads = new Map<string, Heads>();
  const author = `m${side}`;
  for (let i = side * 50_000; i < side * 50_000 + 100_000; i++) {
    const at = (1_780_000_000_000 + i * 1000).toString(36).padStart(9, "0");
    const rev = `${at}.0000.first`;
    const later = `${(1_790_000_000_000 + i).toString(36).padStart(9, "0")}.0000.${author}`;
    const isChanged = i % 7 === side;
    const record = {
      id: `contribution-${i}`, kind: "contribution", rev: isChanged ? later : rev, author: isChanged ? author : "first",
      seen: isChanged ? { first: rev, [author]: later } : { first: rev }, data: { kept: i % 20 },
    } as unknown as StoredRecord; // prettier-ignore
    heads.set(`contribution/${record.id}`, [record]);
  }
  return heads;
}
const [mine, theirs] = [store(0), store(1)];
report(
  "merge of two projects of 100,000 entries",
  median(3, () => mergeStores(mine, theirs)),
  "1000 ms",
);

const folder = mkdtempSync(join(tmpdir(), "books-"));
const card = ([k, v]: readonly [string, string | number]) =>
  `${k.padEnd(8)}= ${typeof v === "number" || v === "T" ? String(v).padStart(20) : `'${v}'`}`.padEnd(80);
const start = (i: number) => new Date(Date.UTC(2026, 10, 20, 18) + Math.floor(i / 100) * 86_400_000 + (i % 100) * 320_000).toISOString().slice(0, 19); // prettier-ignore
const cards = (i: number, width: number, height: number) =>
  [["SIMPLE", "T"], ["BITPIX", 16], ["NAXIS", 2], ["NAXIS1", width], ["NAXIS2", height], ["IMAGETYP", "Light Frame"], ["DATE-OBS", start(i)], ["EXPTIME", 300], ["FILTER", "OIII 5 nm"], ["INSTRUME", "Mono-43"], ["FOCALLEN", 480], ["XPIXSZ", 4.63], ["OBJCTRA", "04 43 21"], ["OBJCTDEC", "+46 42 00"]] as const; // prettier-ignore
const headerOf = (i: number, width: number, height: number) =>
  Buffer.from((cards(i, width, height).map(card).join("") + "END").padEnd(2880));

/** Stars of σ 1.6 px over a noisy sky, 11.7 megapixels: one picture, since what is in it does not matter for the time. */
function pixels(width: number, height: number): Buffer {
  const light = new Float32Array(width * height);
  let seed = 7;
  const random = () => (seed = (seed * 1_103_515_245 + 12_345) & 0x7fffffff) / 0x7fffffff;
  for (let i = 0; i < light.length; i++) light[i] = 900 + 60 * (random() + random() - 1);
  for (let s = 0; s < 4000; s++) {
    const [x, y, top] = [20 + random() * (width - 40), 20 + random() * (height - 40), 300 + 6000 * random() ** 3];
    for (let dy = -7; dy <= 7; dy++)
      for (let dx = -7; dx <= 7; dx++) {
        const [px, py] = [Math.round(x) + dx, Math.round(y) + dy];
        light[py * width + px]! += top * Math.exp(-((px - x) ** 2 + (py - y) ** 2) / 5.12);
      }
  }
  const data = Buffer.alloc(Math.ceil((light.length * 2) / 2880) * 2880);
  light.forEach((v, i) => data.writeInt16BE(Math.max(-32_768, Math.min(32_767, Math.round(v))), 2 * i));
  return data;
}

const profile = newProfile();
const app = await startApp({ ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z" });
const driver = await openBrowser(profile.path);
const me = hands(driver);
const drop = async (label: string, files: readonly string[]) => {
  await driver.executeScript(
    `document.querySelector("input[aria-label='${label}']").addEventListener("change", () => { window.began = performance.now(); }, true)`,
  );
  await driver.findElement(By.css(`input[type=file][aria-label='${label}']`)).sendKeys(files.join("\n"));
};
const since = () => driver.executeScript<number>("return performance.now() - window.began");
try {
  const headers = Array.from({ length: 1000 }, (_, i) => {
    const path = join(folder, `h${i}.fits`);
    // Data of the size the header promises, all zeros: the file system keeps none of it.
    writeFileSync(path, Buffer.concat([headerOf(i, 40, 36), Buffer.alloc(2880)]));
    return path;
  });
  await driver.get(`${app.url}/log`);
  await me.see("Or in a line");
  await drop("Exposure files", headers);
  await me.see("1000 files:");
  report("1,000 headers read, booked and shown before anything is written", await since(), "3000 ms");
  await me.press("Add 1000 exposures");
  await me.see("1000 added");

  const [width, height, count] = [4144, 2822, 40];
  const picture = pixels(width, height);
  const subs = Array.from({ length: count }, (_, i) => {
    const path = join(folder, `s${i}.fits`);
    writeFileSync(path, Buffer.concat([headerOf(i, width, height), picture]));
    return path;
  });
  await driver.get(`${app.url}/log/subs?night=2026-11-20`);
  await me.see("Measure them here");
  await drop("FITS files to measure", subs);
  await me.see("not in the log yet");
  report(
    `1,000 subs of ${((width * height) / 1e6).toFixed(0)} megapixels measured, from ${count}`,
    ((await since()) * 1000) / count,
    "60000 ms",
  );
} finally {
  await driver.quit();
  void app.stop();
  rmSync(folder, { recursive: true, force: true });
}
