import { readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { By, Key, until } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeStage, downloaded, newProfile, openStage, type Stage, textOf, WAIT_MS } from "./browser";

/** A small solved FITS image: 16 bits, a gradient with a bright square. */
function solvedImage(raDeg: number, decDeg: number): Buffer {
  const [nx, ny] = [300, 200];
  const cards = [
    "SIMPLE  =                    T", "BITPIX  =                   16", "NAXIS   =                    2", `NAXIS1  = ${nx}`, `NAXIS2  = ${ny}`,
    "CTYPE1  = 'RA---TAN'", "CTYPE2  = 'DEC--TAN'", `CRVAL1  = ${raDeg}`, `CRVAL2  = ${decDeg}`, "CRPIX1  = 150.5", "CRPIX2  = 100.5",
    "CDELT1  = -0.005", "CDELT2  = 0.005", "END",
  ]; // prettier-ignore
  const head = Buffer.from(
    cards
      .map((c) => c.padEnd(80))
      .join("")
      .padEnd(2880),
  );
  const data = Buffer.alloc(Math.ceil((nx * ny * 2) / 2880) * 2880);
  for (let i = 0; i < nx * ny; i++) {
    const [x, y] = [i % nx, Math.floor(i / nx)];
    data.writeInt16BE(1000 + x + (Math.abs(x - 150) < 20 && Math.abs(y - 100) < 20 ? 9000 : 0), 2 * i);
  }
  return Buffer.concat([head, data]);
}

const ONE_PIXEL_PNG = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==",
  "base64",
);

describe("framing", () => {
  const profile = newProfile();
  let { app, driver, me } = {} as Stage;
  beforeAll(async () => {
    ({ app, driver, me } = await openStage(profile.path));
  });
  afterAll(() => closeStage({ app, driver }, profile));

  const box = async (label: string) => (await me.box(label)).getAttribute("value");
  const type = async (label: string, value: string) => {
    await me.fill(label, value);
    await (await me.box(label)).sendKeys(Key.ENTER);
  };
  /** The text of a file with this ending once it has been downloaded; it is then taken away. */
  const given = async (ending: string): Promise<string> => {
    const path = await downloaded(driver, profile.path, (f) => f.endsWith(ending));
    const text = readFileSync(path, "utf8");
    rmSync(path);
    return text;
  };
  const upload = async (label: string, name: string, content: string | Buffer) => {
    const path = join(profile.path, name);
    writeFileSync(path, content);
    await driver.findElement(By.css(`input[aria-label='${label}']`)).sendKeys(path);
  };

  it("builds a 3 × 2 over a wide object, clears its seams with before and after, and goes back by key", async () => {
    await driver.get(`${app.url}/targets/Sh2-103`);
    await me.press("Start a project");
    await me.see("Whole frame");
    await me.choose("Columns", "3");
    await me.choose("Rows", "2");
    await me.see("6 panels: 6 times the hours");
    await me.press("Seams");
    await me.choose("Mind stars brighter than", "magnitude 9");
    const where = async () => {
      await me.press("Mosaic");
      const value = [await box("Right ascension"), await box("Declination"), await box("Position angle")].join();
      await me.press("Seams");
      return value;
    };
    const before = await where();
    await me.fill("Shift up to", "60");
    await me.see("0 to 50 % of a panel.");
    await me.fill("Shift up to", "20");
    await me.press("Shift and turn to clear them");
    const status = await (await me.see(" before, ")).getText();
    const [was, is] = [...status.matchAll(/\d+\.\d\d/g)].map((m) => Number(m[0])) as [number, number];
    expect(is).toBeLessThan(was);
    expect(await where()).not.toBe(before);
    await driver.findElement(By.css("canvas")).sendKeys(Key.chord(Key.CONTROL, "z"));
    await driver.wait(async () => (await where()) === before, WAIT_MS, "Ctrl Z should bring the frame back");
  });

  it("takes a panel put down by hand, moved by number and by mouse", async () => {
    await me.press("Mosaic");
    await me.press("Add a panel by hand");
    await me.see("7 panels: 7 times the hours");
    const right = await driver.findElement(By.xpath("//label[starts-with(normalize-space(.), 'right')]/input"));
    const up = await driver.findElement(By.xpath("//label[starts-with(normalize-space(.), 'up')]/input"));
    await driver.executeScript("arguments[0].select()", right);
    await right.sendKeys("0");
    await driver.wait(async () => (await right.getAttribute("value")) === "0", WAIT_MS);
    // it now lies over the middle of the chart, on top of the grid: the mouse takes it, not the mosaic
    const start = await box("Right ascension");
    const offset = async () =>
      Math.hypot(Number(await right.getAttribute("value")), Number(await up.getAttribute("value")));
    const chart = await driver.findElement(By.css("canvas"));
    await me.press("Whole frame");
    await driver.actions().move({ origin: chart, x: 0, y: 0 }).press().move({ origin: chart, x: 0, y: -60, duration: 200 }).release().perform(); // prettier-ignore
    await driver.wait(async () => (await offset()) > 5, WAIT_MS, "the panel should follow the mouse");
    expect(await box("Right ascension")).toBe(start);
    await me.press("Remove P7");
    await me.see("6 panels: 6 times the hours");
  });

  it("hands out CSV, VOTable, cards; takes its own files back without change, and asks about foreign ones", async () => {
    await me.press("Panels");
    await (await driver.findElement(By.css("input[aria-label='Name of P2']"))).sendKeys("Łuk");
    await me.press("Leave out P3");
    await me.press("Shoot P2 earlier");
    await me.press("Download CSV");
    const csv = await given(".csv");
    expect(csv).toContain("P2,Łuk,");
    expect(csv).not.toContain("P3,");
    await me.press("VOTable");
    const xml = await given(".xml");
    expect(xml).toContain('<VOTABLE version="1.4"');
    await me.press("FITS cards");
    expect((await given(".txt")).match(/^CTYPE1 {2}= 'RA---TAN'/gm)).toHaveLength(5);
    await me.press("Coverage, MOC in FITS");
    expect(await given(".fits")).toContain("ORDERING= 'NUNIQ");
    await me.press("MOC in JSON");
    expect(Object.keys(JSON.parse(await given("-coverage.json")) as object).at(-1)).toBe("12"); // of 1.5°: cells of 52″
    // spoil the grid, then take the file back
    await me.press("Mosaic");
    await me.choose("Columns", "1");
    await me.choose("Rows", "1");
    await me.press("Panels");
    await upload("Panel list", "again.csv", csv);
    await me.see("5 panels taken.");
    await me.press("Download CSV");
    expect(await given(".csv")).toBe(csv);
    await upload("Panel list", "again.xml", xml);
    const told = By.xpath("//li[contains(., '5 panels taken.')]");
    await driver.wait(async () => (await driver.findElements(told)).length > 1, WAIT_MS, "the XML should be taken too");
    await me.press("VOTable");
    expect(await given(".xml")).toBe(xml);
    await upload("Panel list", "foreign.csv", "ra,dec\n20.75,30.5\n20.82,30.9");
    await me.see("are these hours or degrees?");
    await me.choose("Numbers of right ascension are", "hours");
    await me.press("Take them");
    await me.see("20h 49m 12");
    await driver.findElement(By.css("canvas")).sendKeys(Key.chord(Key.CONTROL, "z"));
    await me.gone("20h 49m 12");
  });

  it("adopts the frame of a solved exposure, names what differs from the rig, and says how to turn the camera", async () => {
    await me.press("Repeat");
    await upload(
      "Solved exposure or its header as text",
      "dark.fits",
      readFileSync("reference/tables/fits/dark_01.fits"),
    );
    await me.see("It is not solved");
    const cards = [
      "NAXIS1 = 4144", "NAXIS2 = 2822", "FOCALLEN = 803", "CTYPE1 = 'RA---TAN'", "CTYPE2 = 'DEC--TAN'", "CRVAL1 = 312.5", "CRVAL2 = 30.5",
      "CRPIX1 = 2072.5", "CRPIX2 = 1411.5", "CDELT1 = -0.000552", "CDELT2 = 0.000552", "CROTA2 = 20.0",
    ]; // prettier-ignore
    await upload("Solved exposure or its header as text", "solved.txt", cards.join("\n"));
    await me.see("Header says 803 mm, your rig says 480 mm.");
    await me.see("Not mirrored.");
    await me.press("Take its centre and angle");
    await me.see("The camera angle is correct.");
    const angle = await box("Camera PA now");
    await me.fill("Camera PA now", String(Number(angle) - 23.4));
    await me.see("counter-clockwise by 23.4°, seen from behind.");
    await me.see("Flats taken before the turn no longer fit");
    await me.press("Mosaic");
    expect(await box("Right ascension")).toMatch(/^20h 50m 0/);
  });

  it("finds the smallest mosaic for an outline drawn by hand, and compares rigs", async () => {
    await me.press("Cover");
    await me.press("Draw an outline");
    const canvas = await driver.findElement(By.css("canvas"));
    for (const [x, y] of [[-150, -60], [150, -60], [150, 60], [-150, 60]] as const)
      await driver.actions().move({ origin: canvas, x, y }).click().perform(); // prettier-ignore
    await me.see("4 so far");
    await me.press("Close the outline");
    await me.see("outline 1");
    await me.press("Smallest mosaic that contains them");
    const first = await driver.wait(
      until.elementLocated(By.css("ol[aria-label='Grids that hold the outlines'] li")),
      10_000,
    );
    const [, columns, rows] = /(\d+) × (\d+)/.exec(await first.getText())!;
    await first.findElement(By.css("button")).click();
    await me.press(Number(columns) * Number(rows) === 1 ? "Frame" : "Mosaic");
    await driver.wait(async () => (await box("Columns")) === columns && (await box("Rows")) === rows, WAIT_MS);
    await me.press("Compare");
    await me.see("For the same depth per area");
    expect(await me.text()).toMatch(/Barn telephoto/);
    expect(await me.text()).toMatch(/× coarser/);
  });

  it("lays the frame on a third by a small picture, and turns it along a line drawn on the chart", async () => {
    await me.press("Mosaic").catch(() => me.press("Frame"));
    await me.choose("Columns", "4");
    await me.choose("Rows", "4");
    await me.press("In the middle");
    await driver.wait(async () => /^20h 5/.test((await box("Right ascension")) ?? ""), WAIT_MS);
    const middle = await box("Right ascension");
    const angle = await box("Position angle");
    await me.press("On a third");
    await driver.wait(async () => (await box("Right ascension")) !== middle, WAIT_MS);
    expect(await box("Position angle")).toBe(angle);
    await me.press("Whole frame");
    await me.press("Turn to what you see");
    const canvas = await driver.findElement(By.css("canvas"));
    await driver.actions().move({ origin: canvas, x: -100, y: 60 }).press().move({ origin: canvas, x: 100, y: -60, duration: 200 }).release().perform(); // prettier-ignore
    // Up by 60 over 200 from left to right, north being up: 31.0° from the parallel, and so is the long side; the field is some degrees wide.
    await driver.wait(async () => Math.abs(((Number(await box("Position angle")) + 90) % 180) - 90 - 31) < 4, WAIT_MS);
    await me.see("Turn to what you see");
    await me.press("Undo");
    await driver.wait(async () => (await box("Position angle")) === angle, WAIT_MS);
  });

  it("lays a FITS image of one's own under the chart, and a picture by its four corners", async () => {
    const chart = () =>
      driver.executeScript<string>("return document.querySelector('canvas').toDataURL().slice(-4000)");
    await me.press("Mosaic").catch(() => me.press("Frame"));
    await me.press("Picture");
    const before = await chart();
    await upload("Picture for under the chart", "own.fits", solvedImage(312.5, 30.5));
    await me.see("Take it away");
    await driver.wait(async () => (await chart()) !== before, WAIT_MS, "the picture should be drawn");
    await me.press("Take it away");
    await driver.wait(async () => (await chart()) === before, WAIT_MS);
    await upload("Picture for under the chart", "own.png", ONE_PIXEL_PNG);
    await me.fill("Top left", "here");
    await me.see("Give right ascension and declination");
    await me.press("It fills one frame here");
    await me.press("Lay it down");
    await me.see("Take it away");
    const corner = () => driver.findElement(By.xpath("//label[contains(., 'Top left')]/following::input[1]"));
    const typed = await (await corner()).getAttribute("value");
    await me.see("own.png is kept.");
    await driver.navigate().refresh();
    await me.see("Whole frame");
    await me.press("Picture");
    await me.see("own.png, strength");
    expect(await (await corner()).getAttribute("value")).toBe(typed);
    await me.press("Take it away");
    await upload("Picture for under the chart", "own.doc", "no picture");
    await me.see("neither a FITS image nor a picture");
  });

  it("keeps another frame beside the first, and shoots the one chosen", async () => {
    await me.press("Another frame for this project");
    await me.see("This one is planned and shot.");
    await me.choose("Frame", "Frame 2");
    await me.press("Shoot this one");
    await me.see("This one is planned and shot.");
  });

  it("warns near the pole, of no overlap, and refuses 95 %; all by keys alone", async () => {
    await type("Declination", "+88 30");
    await me.choose("Columns", "2");
    await me.see("So near the pole the camera angle differs from panel to panel");
    await type("Overlap", "0");
    await me.see("Without overlap the panels only touch");
    await type("Overlap", "95");
    await me.see("From 0 to 50 %; 95 is outside.");
    // keyboard only: from the chart by Tab to the leaves, arrows between them, Enter opens
    const heads = await driver.findElements(By.css("[role=tab]"));
    await driver.executeScript("arguments[0].focus()", heads[0]);
    await driver.actions().sendKeys(Key.ARROW_RIGHT).perform();
    const focused = () => driver.executeScript<string>("return document.activeElement.textContent");
    await driver.wait(async () => (await focused()) === "In here", WAIT_MS, "the arrow should go to the next leaf");
    await driver.actions().sendKeys(Key.ENTER).perform();
    await driver.wait(async () => (await textOf(driver, "[role=tab][aria-selected=true]")) === "In here", WAIT_MS);
  });
});
