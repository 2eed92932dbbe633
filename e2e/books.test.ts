import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { By } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeStage, newProfile, openStage, WAIT_MS, type Stage } from "./browser";

/** The books of a night: lines, silent nights, files looked at before they are added, what was measured and what went wrong. */
describe("the books", () => {
  const profile = newProfile();
  let stage: Stage;
  const main = () => stage.driver.findElement(By.css("main")).getText();
  const waitFor = (is: () => Promise<boolean>, words: string) => stage.driver.wait(is, WAIT_MS, words);

  beforeAll(async () => {
    stage = await openStage(profile.path);
    await stage.driver.get(stage.app.url);
    await stage.me.see("Go, from");
  });
  afterAll(() => closeStage(stage, profile));

  it("takes a night in two lines, says which one is wrong, and adds both or none", async () => {
    const { driver, app, me } = stage;
    await driver.get(`${app.url}/log?night=2026-12-04`);
    await me.see("Or in a line");
    await me.choose("Of", "The whole Veil, two by three");
    await me.fill("Evening of 2026-12-04, a line each", "17 of 21 x 300 s Ha P2, cloud\n12 OIII P9");
    await me.press("Add lines");
    await me.see("Line 2: the frame has no P9.");
    expect(await main()).not.toContain("17 of 21 × 300 s");
    const box = await me.box("Evening of 2026-12-04, a line each");
    await driver.executeScript("arguments[0].select()", box);
    await box.sendKeys("17 of 21 x 300 s Ha P2, cloud\n12 OIII P3");
    await me.press("Add lines");
    await me.see("2 entries added.");
    await me.see("17 of 21 × 300 s");
    await me.press("Undo");
    await me.gone("17 of 21 × 300 s");
  });

  it("asks about nights nobody wrote down, and takes the answer in one press", async () => {
    const { driver, app, me } = stage;
    await driver.get(`${app.url}/log`);
    await me.see("How was it at Garden behind the mill?");
    await me.press("Fri 4 Dec: lost to cloud");
    await me.see("Fri 4 Dec is written down as lost to cloud.");
    await waitFor(
      async () => !(await main()).includes("Fri 4 Dec\nlost to cloud"),
      "the night is not asked about again",
    );
    await me.press("Undo");
    await me.see("Fri 4 Dec");
  });

  it("notices a camera's clock that is hours ahead, puts it right, and keeps the intake to be read again", async () => {
    const { driver, app, me } = stage;
    const header = (cards: readonly (readonly [string, string | number])[]) =>
      [["SIMPLE", "T"], ["BITPIX", 16], ["NAXIS", 0], ...cards].map(([k, v]) => `${String(k).padEnd(8)}= ${typeof v === "number" || v === "T" ? String(v).padStart(20) : `'${v}'`}`.padEnd(80)).join("") + "END".padEnd(80); // prettier-ignore
    const file = (name: string, at: string) => {
      const text = header([["IMAGETYP", "Light Frame"], ["DATE-OBS", at], ["EXPTIME", 300], ["FILTER", "OIII"], ["OBJECT", "Veil"], ["RA", 312.0], ["DEC", 31.0], ["FOCALLEN", 480], ["INSTRUME", "Mono-26"], ["XPIXSZ", 3.76]]); // prettier-ignore
      const path = join(profile.path, name);
      writeFileSync(path, text.padEnd(Math.ceil(text.length / 2880) * 2880));
      return path;
    };
    // A night from 18:00 to 23:00 UTC by a clock that is fourteen hours ahead would read as the next day's forenoon.
    const files = [file("c1.fits", "2026-12-04T09:00:00"), file("c2.fits", "2026-12-04T12:00:00")];
    await driver.get(`${app.url}/log`);
    await me.see("Or in a line");
    await driver.findElement(By.css("input[type=file][aria-label='Exposure files']")).sendKeys(files.join("\n"));
    await me.see("2 files: 2 to add");
    await me.see("the camera's clock seems to have been");
    const said = /seems to have been (\d+) hours (ahead|behind)/.exec((await main()).replaceAll("’", "'"))!;
    await me.press("Put it right");
    await me.see(`The camera's clock, ${said[1]} hours ${said[2]}, is put right.`);
    await me.gone("seems to have been");
    await me.press("Add 2 exposures");
    await me.see("2 files: 2 added");
    await me.see("Brought in from files");
    expect(await main()).toContain(`clock ${said[1]} hours ${said[2]}`);
  });

  it("writes down what a night was like, says what guiding came to, and finds how a trouble was cured", async () => {
    const { driver, app, me } = stage;
    await driver.get(`${app.url}/log/nights?night=2026-12-04`);
    await me.fill("Seeing, FWHM", "x");
    await me.press("Write down");
    await me.see("“x” is not a number.");
    await me.fill("Seeing, FWHM", "2.5");
    await me.fill("Guiding RMS, RA", "0.9");
    await me.fill("Guiding RMS, Dec", "0.5");
    await me.fill("Trouble", "stars long in the corner, tilt");
    await me.fill("What cured it", "a shim at the rotator");
    await me.press("Write down");
    await me.see("Fri 4 Dec is written down.");
    await me.see("Guiding 1.03″ in all");
    await me.see("eccentricity 0.54"); // MATHS C10.2
    await me.fill("Search", "tilt shim");
    await me.see("Cure: a shim at the rotator");
    await me.fill("Search", "dew");
    await me.see("No night tells of that.");
    await driver.navigate().refresh();
    await waitFor(async () => (await me.value("Seeing, FWHM")) === "2.5", "it should be there again");
  });
});
