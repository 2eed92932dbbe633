import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { By, Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeStage, newProfile, openStage, type Stage, textOf, visit, WAIT_MS } from "./browser";
import { lightFrame, starPixels } from "./star-frame";

/** Files of every kind, a thousand of them, and a night's subs looked through. */
describe("the morning after", () => {
  const profile = newProfile();
  let { app, driver, me } = {} as Stage;
  beforeAll(async () => {
    ({ app, driver, me } = await openStage(profile.path));
    await visit(driver, app.url);
    await me.see("Go, from");
  });
  afterAll(() => closeStage({ app, driver }, profile));
  const main = () => textOf(driver, "main");
  const fits = (name: string, startIso: string, side: number, pixels: Buffer) => {
    const path = join(profile.path, name);
    writeFileSync(path, lightFrame(startIso, side, pixels));
    return path;
  };
  const drop = (label: string, files: readonly string[]) =>
    driver.findElement(By.css(`input[type=file][aria-label='${label}']`)).sendKeys(files.join("\n"));
  const at = (night: number, i: number) => new Date(Date.UTC(2026, 10, night, 19) + i * 309_000).toISOString().slice(0, 19); // prettier-ignore

  it("books a thousand dropped files in one act, knows them again, and takes them back in one press", async () => {
    const empty = Buffer.alloc(2880);
    const files = Array.from({ length: 1000 }, (_, i) => fits(`t${i}.fits`, at(14 + Math.floor(i / 100), i % 100), 36, empty)); // prettier-ignore
    await visit(driver, `${app.url}/log`);
    await me.see("Or in a line");
    await drop("Exposure files", files);
    // A thousand files take a while beside another journey.
    const isRead = async () => (await main()).includes("1000 files: 1000 to add, 0 already here, 0 left out.");
    await driver.wait(isRead, 4 * WAIT_MS, "a thousand files should be read");
    await me.press("Add 1000 exposures");
    await me.see("1000 exposures added.");
    await drop("Exposure files", files.slice(0, 40));
    await me.see("40 files: 0 to add, 40 already here");
  });

  it("looks through a night by keys and by the clock, keeps 100 → 97 → 90, and finds its way back", async () => {
    await visit(driver, `${app.url}/log/subs?night=2026-11-15`);
    await me.see("Subs of Sunday 15 November 2026");
    expect(await main()).toContain("100 taken, all kept");
    const grid = await driver.findElement(By.css("[role=grid]"));
    // Only what can be seen is drawn.
    expect((await driver.findElements(By.css("[role=grid] [aria-rowindex]"))).length).toBeLessThan(60);
    await driver.executeScript("arguments[0].focus()", grid);
    await grid.sendKeys(Key.ARROW_DOWN, Key.chord(Key.SHIFT, Key.ARROW_DOWN), Key.chord(Key.SHIFT, Key.ARROW_DOWN));
    await me.see("3 subs chosen: dropping 3 costs 0 h 15, signal to noise × 0.985");
    await me.choose("Why", "trails");
    await grid.sendKeys("x");
    await me.see("3 subs dropped: trails.");
    await me.see("100 → 97 kept");
    // Cloud from 23:10 to 23:40 by the clock of the place: what was open then, also what had begun before.
    await me.fill("From", "11:10 pm");
    await me.fill("To", "23:40");
    await me.press("Choose these");
    await me.see("7 subs chosen");
    await me.choose("Why", "cloud");
    await me.press("Drop 7");
    await me.see("100 → 97 → 90 kept");
    await driver.findElement(By.xpath("//*[contains(text(), '7 subs dropped: cloud.')]/ancestor-or-self::*[.//button[.='Undo']][1]//button[.='Undo']")).click(); // prettier-ignore
    await me.see("100 → 97 kept");
    await driver.navigate().refresh();
    await me.see("100 → 97 kept");
  });

  it("measures stars on the dropped files, says which sub stands out, and drops it", async () => {
    const side = 260;
    const files = Array.from({ length: 12 }, (_, i) => fits(`m${i}.fits`, at(2, i), side, starPixels(side, i === 7 ? 3.2 : 1.6 + 0.02 * (i % 4), i + 1))); // prettier-ignore
    await visit(driver, `${app.url}/log`);
    await me.see("Or in a line");
    await drop("Exposure files", files);
    await me.press("Add 12 exposures");
    await me.see("12 exposures added.");
    await visit(driver, `${app.url}/log/subs?night=2026-11-02`);
    await me.see("Nothing is measured yet");
    await drop("FITS files to measure", files);
    await me.see("12 of 12 subs measured");
    // σ 1.62 px and the pixel's own width, at 1.99″ a pixel: 2.3548 √(1.62² + 1/12) 1.99 = 7.7″.
    expect(await main()).toMatch(/stars 7\.[678]″ wide/);
    await me.see("36");
    await me.press("Choose the 1 sub that stand");
    await me.choose("Why", "bad seeing");
    await me.press("Drop 1");
    await me.see("12 → 11 kept");
  });

  it("reads a camera's picture by its EXIF and a table of subs; says what they do not tell, and doubles nothing", async () => {
    const folder = join(profile.path, "night");
    mkdirSync(folder);
    // A TIFF after TIFF 6.0 and Exif 3.0: camera, exposure, ISO and the camera's own clock.
    const bytes = Buffer.alloc(600);
    bytes.write("II*\0", "latin1");
    bytes.writeUInt32LE(8, 4);
    const entry = (o: number, tag: number, type: number, count: number, value: number) => {
      bytes.writeUInt16LE(tag, o);
      bytes.writeUInt16LE(type, o + 2);
      bytes.writeUInt32LE(count, o + 4);
      bytes.writeUInt32LE(value, o + 8);
    };
    bytes.writeUInt16LE(2, 8);
    entry(10, 0x0110, 2, 10, 300);
    bytes.write("Colour-26\0", 300, "latin1");
    entry(22, 0x8769, 4, 1, 100);
    bytes.writeUInt16LE(3, 100);
    entry(102, 0x829a, 5, 1, 320);
    bytes.writeUInt32LE(60, 320);
    bytes.writeUInt32LE(1, 324);
    entry(114, 0x8827, 3, 1, 800);
    entry(126, 0x9003, 2, 20, 340);
    bytes.write("2026:12:03 21:10:31\0", 340, "latin1");
    const raw = join(folder, "IMG_0001.dng");
    writeFileSync(raw, bytes);
    const none = join(folder, "holiday.jpg");
    writeFileSync(none, Buffer.from([0xff, 0xd8, 0xff, 0xd9]));
    const table = join(folder, "subs.csv");
    writeFileSync(table, `file,start_utc,exposure,filter,camera,ra_deg,dec_deg,fwhm_px,stars\nm3.fits,${at(2, 3)},300,OIII 5 nm,Mono-43,70.84,46.7,1.9,40\nnew.fits,2026-12-01T20:00:00Z,300,OIII 5 nm,Mono-43,70.84,46.7,1.8,41\n`); // prettier-ignore
    await visit(driver, `${app.url}/log`);
    await me.see("Or in a line");
    await drop("Exposure files", [raw, none, table]);
    await me.see("4 files: 2 to add, 1 already here");
    const report = await textOf(driver, "[role=status]");
    expect(report).toContain("Sculptor past the roof: P1 Colour, night of 2026-12-03, 60 s");
    expect(report).toContain("the file does not say where it points");
    expect(report).toContain("Sh2-216, three gardens: P1 OIII, night of 2026-12-01, 300 s");
    expect(report).toContain("holiday.jpg: the picture does not say how it was taken (no EXIF)");
    await me.press("Add 2 exposures");
    await me.see("2 added");
    await driver.wait(async () => (await main()).includes("Sculptor past the roof"), WAIT_MS, "the log should tell it");
  });
});
