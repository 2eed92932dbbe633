import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { By } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeStage, downloaded, newProfile, openStage, type Stage, textOf, visit, WAIT_MS } from "./browser";

/** The books of a night: lines, silent nights, files looked at before they are added, what was measured and what went wrong. */
describe("the books", () => {
  const profile = newProfile();
  let stage: Stage;
  const main = () => textOf(stage.driver, "main");
  const waitFor = (is: () => Promise<boolean>, words: string) => stage.driver.wait(is, WAIT_MS, words);

  beforeAll(async () => {
    stage = await openStage(profile.path);
    await stage.driver.get(stage.app.url);
    await stage.me.see("Go, from");
  });
  afterAll(() => closeStage(stage, profile));

  it("takes a night in two lines, says which one is wrong, and adds both or none", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/log?night=2026-12-04`);
    await me.see("Or in a line");
    await me.choose("Of", "The whole Veil, two by three");
    await me.fill("Evening of 2026-12-04, a line each", "17 of 21 x 300 s Ha P2, cloud\n12 OIII P9");
    await me.press("Add lines");
    await me.see("Line 2: the frame has no P9.");
    expect(await main()).not.toMatch(/17 of 21 × 300 s(?! Ha)/); // but for how it is understood
    const box = await me.box("Evening of 2026-12-04, a line each");
    await driver.executeScript("arguments[0].select()", box);
    await box.sendKeys("17 of 21 x 300 s Ha P2, cloud\n12 OIII P3");
    // What is understood is shown before it is added.
    await me.see("17 of 21 × 300 s Ha P2, 1 h 25 kept; not kept: cloud");
    await me.press("Add lines");
    await me.see("2 entries added.");
    await me.see("17 of 21 × 300 s");
    await me.press("Undo");
    await me.gone("17 of 21 × 300 s");
  });

  it("asks about a night longer than it was, and takes it when it is right all the same", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/log?night=2026-12-04`);
    await me.choose("Of", "The whole Veil, two by three");
    await me.fill("Evening of 2026-12-04, a line each", "200 x 300 s OIII P3");
    await me.press("Add lines");
    await me.see("from sunset to sunrise it lasted");
    expect(await main()).not.toMatch(/200 × 300 s(?! OIII)/);
    // The doubt is about the lines as they were sent: others are not added on the strength of it.
    await me.fill("Evening of 2026-12-04, a line each", "201 x 300 s OIII P3");
    await me.gone("It is right: add it");
    await me.fill("Evening of 2026-12-04, a line each", "200 x 300 s OIII P3");
    await me.press("It is right: add it");
    await me.see("1 entry added.");
    await me.see("200 × 300 s");
    await me.press("Undo");
    await me.gone("200 × 300 s");
  });

  it("asks about nights nobody wrote down, and takes the answer in one press", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/log`);
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
    await visit(driver, `${app.url}/log`);
    await me.see("Or in a line");
    await driver.findElement(By.css("input[type=file][aria-label='Exposure files']")).sendKeys(files.join("\n"));
    await me.see("2 files: 2 to add");
    await me.see("The clock seems to have been");
    const said =
      /2 of 2 lights would have been taken under the Sun.*seems to have been (\d+) hours (ahead|behind)/.exec(
        await main(),
      )!;
    await me.press("Put 2 files right");
    await me.see(`the clock, ${said[1]} hours ${said[2]}, is put right.`);
    await me.gone("seems to have been");
    await me.press("Leave it as it was");
    await me.see("The clock seems to have been");
    await me.press("Put 2 files right");
    await me.gone("seems to have been");
    await me.press("Add 2 exposures");
    await me.see("2 files: 2 added");
    await me.see("Brought in from files");
    await driver.executeScript("[...document.querySelectorAll('main details')].forEach((d) => (d.open = true))");
    expect(await main()).toContain(`Mono-26, 2 files, lights from Fri 4 Dec`);
  });

  it("writes down what a night was like, says what guiding came to, and finds how a trouble was cured", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/log/nights?night=2026-12-04`);
    // What nobody wrote down and no file tells is added by a press.
    for (const more of ["Seeing, FWHM", "Guiding RMS, RA", "Guiding RMS, Dec"]) await me.press(`+ ${more}`);
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
    // Another rig's night is its own.
    await me.press("Newtonian with colour camera");
    await me.press("+ Seeing, FWHM");
    await me.fill("Seeing, FWHM", "3.1");
    await me.press("Write down");
    await waitFor(async () => (await me.value("Seeing, FWHM")) === "3.1", "it should be written down");
    await me.press("Garden refractor");
    await waitFor(async () => (await me.value("Seeing, FWHM")) === "2.5", "the first rig's should stand");
    await driver.navigate().refresh();
    await waitFor(async () => (await me.value("Seeing, FWHM")) === "2.5", "it should be there again");
  });

  it("says on the run sheet what of calibration is missing, what the shelf has, and that a turn voids flats", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/nights?night=2026-12-05`);
    await me.see("flats through");
    // Whichever filter the plan begins with.
    const [, filter, angle] = /25 flats through (.+), camera at (\d+)°: none on the shelf/.exec(await main())!;
    const flats = `25 flats through ${filter!}, camera at ${angle!}°`;
    await me.see("25 dark flats as long as the flats");
    const card = ([k, v]: readonly [string, string | number]) => `${k.padEnd(8)}= ${typeof v === "number" || v === "T" ? String(v).padStart(20) : `'${v}'`}`.padEnd(80); // prettier-ignore
    const files = Array.from({ length: 25 }, (_, i) => {
      const text = ([["SIMPLE", "T"], ["BITPIX", 16], ["NAXIS", 0], ["IMAGETYP", "Flat Frame"], ["DATE-OBS", `2026-12-05T07:${String(10 + i)}:00`], ["EXPTIME", 2.4], ["FILTER", filter!], ["INSTRUME", "Mono-43"]] as const).map(card).join("") + "END".padEnd(80); // prettier-ignore
      const path = join(profile.path, `flat${i}.fits`);
      writeFileSync(path, text.padEnd(Math.ceil(text.length / 2880) * 2880));
      return path;
    });
    await visit(driver, `${app.url}/log`);
    await me.see("Or in a line");
    await driver.findElement(By.css("input[type=file][aria-label='Exposure files']")).sendKeys(files.join("\n"));
    await me.press("Add 25 exposures");
    await me.see("Calibration on the shelf");
    await visit(driver, `${app.url}/nights?night=2026-12-05`);
    await me.see(`${flats}: 25 on the shelf`);
    await me.see("25 dark flats of 2.4 s");
    // The camera is turned this evening, and somebody writes so down.
    await visit(driver, `${app.url}/log/nights?night=2026-12-05`);
    await me.press("+ Changed in the optical train");
    await driver.findElement(By.css("input[name=train][value=turned]")).click();
    await me.press("Write down");
    await me.see("Sat 5 Dec is written down.");
    await visit(driver, `${app.url}/nights?night=2026-12-05`);
    await me.see("25 are void: camera turned since Sat 5 Dec");
  });

  it("hands out the record of a picture as text, Markdown, CSV and a picture", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/projects/project-shell/record`);
    await me.see("Take it along");
    expect(await main()).toMatch(/Ha\s*\n102 × 300 s: 8 h 30/);
    for (const [button, ending] of [
      ["Text", "txt"],
      ["Markdown", "md"],
      ["CSV", "csv"],
      ["Picture", "png"],
    ] as const) {
      await me.press(button);
      const bytes = readFileSync(await downloaded(driver, profile.path, (f) => f.endsWith(`-record.${ending}`)));
      if (ending === "png") expect([...bytes.subarray(0, 4)]).toEqual([0x89, 0x50, 0x4e, 0x47]);
      else expect(bytes.toString("utf8")).toContain("102 × 300 s");
    }
  });

  it("tells a crew what each gives, when each has the target, and what each hands over", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/projects/project-shell/crew`);
    await me.see("What each gives to the picture");
    const cells = await driver.findElements(By.xpath("//section[contains(., 'What each gives')]//tr/td[last()]"));
    const shares = await Promise.all(cells.map(async (cell) => Number.parseFloat(await cell.getText())));
    expect(shares).toHaveLength(3);
    expect(Math.abs(shares.reduce((a, b) => a + b, 0) - 100)).toBeLessThan(2);
    await me.see("Usable hours a night, clear sky assumed");
    // Wren told the others: Mondays and Wednesdays she is not free; Ines drives to the pass, and tells nobody until she says so.
    const nights = (who: string) => textOf(driver, By.xpath(`//table[caption[contains(., 'Usable hours')]]//tr[th[contains(., '${who}')]]`)); // prettier-ignore
    expect((await nights("Wren")).match(/busy/g)).toHaveLength(3);
    expect(await nights("Tomasz")).not.toContain("busy");
    await me.see("at Pass above the larches");
    await me.press("Tell them");
    await me.see("The file for the others says which evenings you are free and where you can drive.");
    await me.press("Take it back");
    await me.see("The others do not know which evenings you are free");
    expect(await main()).toMatch(/tonight \d\d:\d\d to \d\d:\d\d GMT/); // another zone than one's own is named
    await me.see("5 of 5 to come");
    await driver.findElement(By.xpath("//label[contains(., 'sh2-216-three-gardens_Ha_tomasz')]/input")).click();
    await me.see("4 of 5 to come");
    await me.choose("Form", "raw subs with their calibration");
    await waitFor(async () => (await me.value("Form")) === "rawSubs", "it should be kept");
    await me.press("Export the list");
    const text = readFileSync(await downloaded(driver, profile.path, (f) => f.endsWith("-hand-over.txt")), "utf8");
    expect(text).toContain("raw subs with their calibration, 32 bits a pixel");
    expect(text).toMatch(/Tomasz:\n {2}\[x\] Ha/);
    expect(text).toMatch(/Wren:\n {2}\[ \] OIII.*\n {2}\[ \] L/);
    await driver.navigate().refresh();
    await me.see("4 of 5 to come");
  });
});
