import { mkdtempSync, utimesSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { By, Key } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { writeFits } from "../scripts/demo/fits-writer";
import { ALL_RULES, breachesOf, COLOUR_RULES } from "./axe";
import {
  hands,
  newProfile,
  openBrowser,
  type RunningApp,
  setClock,
  sharedApp,
  startPlainApp,
  textOf,
  visit,
  WAIT_MS,
} from "./browser";

/** What is read at the later stops of the round. */
const ROUND_FROM_PLACE = [
  ["a target", "This is what you chose for"],
  ["the frame", "Drag the frame on the sky"],
  ["the hours", "takes in each filter"],
  ["the plan", "Which nights it is likely to take"],
  ["the run sheet", "What to do tonight, by the clock"],
  ["the log", "The morning after, drop the files of the night here"],
] as const;

/** The first minute of somebody who has nothing here yet: the real clock's app, empty. */
describe("the start", () => {
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  let profile: ReturnType<typeof newProfile>;
  const folder = mkdtempSync(join(tmpdir(), "start-"));
  const open = async (width = 1280, height = 800) => {
    profile = newProfile();
    driver = await openBrowser(profile.path, { width, height });
    await setClock(driver);
    me = hands(driver);
    await visit(driver, app.url);
    await me.see("I watch from");
  };
  const close = async () => {
    await driver.quit();
    profile.remove();
  };
  beforeAll(async () => {
    app = await startPlainApp();
  });
  afterAll(async () => {
    await app.stop();
  });

  it("brings a newcomer from nothing to the sheet of tonight in at most twelve actions", async () => {
    await open();
    let actions = 0;
    const does = async (act: Promise<unknown>) => {
      await act;
      actions++;
    };
    const breaches: string[] = [];
    const look = async (what: string) => {
      for (const theme of ["ember", "day", "dusk"] as const)
        breaches.push(...(await breachesOf(driver, what, theme, theme === "dusk" ? ALL_RULES : COLOUR_RULES)));
    };
    await look("where");
    await does(me.fill("Town near by", "Cahors"));
    await does(me.press("Cahors, FR"));
    await me.see("Through what?");
    await look("optics");
    await does(me.press("refractor 480 mm f/6"));
    await me.see("With which camera?");
    await look("camera");
    await does(me.press("cooled, APS-C, 26 megapixels"));
    // It is made in colour and in monochrome: which one is asked, and nothing taken for granted.
    await me.see("Colour or monochrome? It decides which filters it takes");
    await does(me.press("one-shot colour"));
    await me.see("How dark is it there");
    await look("sky");
    await does(me.press("suburb: the Milky Way only overhead, on good nights"));
    await me.see("the best three, if it is clear");
    // Asked once; until it is answered four in ten are assumed, and called so.
    await me.see("not known: four are assumed");
    await does(me.choose("Of ten nights there, how many are clear?", "six in ten"));
    await look("answer");
    expect(breaches).toEqual([]);
    const page = await me.text();
    expect(page.match(/Begin it tonight/g)!.length).toBe(3);
    expect(page).toMatch(/\d h \d\d usable in Colour, up to \d+°/);
    await does(me.press("Begin it tonight"));
    await me.see("Set up: legs firm, level, balance");
    await me.see("Checklist");
    expect(await me.text()).toMatch(/Colour: \d+ × \d+ s/);
    expect(actions).toBeLessThanOrEqual(12);
    await visit(driver, `${app.url}/kit`);
    await me.press("Cahors");
    await driver.executeScript("[...document.querySelectorAll('main details')].forEach((d) => (d.open = true))");
    expect(await me.value("Jan")).toBe("60");
    // All of it is there the next time, and what would make it better is said.
    await visit(driver, app.url);
    await me.see("What makes this better");
    await me.see("Draw your skyline");
    await me.press("Put away: Draw your skyline");
    await me.gone("Draw your skyline");
    await visit(driver, `${app.url}/kit/rigs`);
    await me.see("Some of its values are typical of its class");
    await me.press("Refractor 480 mm f/6");
    await me.see("typical values used");
    // The round, on what was entered: left at the second stop, taken up there, and at its end what is still assumed.
    await visit(driver, app.url);
    await me.press("Begin the round");
    await me.see("the round, 1 of 8");
    await me.press("On to: your place");
    await me.see("Is the sky over Cahors as dark as it says here");
    await me.press("Leave the round");
    await me.gone("the round, 2 of 8");
    await visit(driver, app.url);
    await me.press("The round through your first picture");
    await me.see("the round, 2 of 8");
    for (const [next, seen] of ROUND_FROM_PLACE) {
      await me.press(`On to: ${next}`);
      await me.see(seen);
    }
    await me.press("What is still assumed");
    await me.see("the round, done");
    expect(await textOf(driver, "section[aria-label='The round']")).toMatch(
      /Enter your camera’s own noise and gain: then[^]*Measure your sky: a sky by its look[^]*Log three nights/,
    );
    await me.press("Close");
    await me.gone("the round, done");
    // A browser that promises nothing says so.
    await visit(driver, `${app.url}/kit/data`);
    await me.press("Ask it to keep everything");
    await me.see("The browser did not promise it.");
    await close();
  });

  it("explains its terms, adds a set of filters, copies a rig, and says how long its battery lasts in tonight's cold", async () => {
    const demo = sharedApp();
    profile = newProfile();
    driver = await openBrowser(profile.path);
    me = hands(driver);
    await visit(driver, demo.url);
    await me.see("Go, from");
    await visit(driver, `${demo.url}/kit/filters`);
    await me.press("L R G B and 7 nm Ha, OIII, SII");
    await me.see("Filters added.");
    await me.press("Ha 7 nm");
    await me.press("What is “Bandwidth”?");
    await me.see("How wide a band it lets through");
    expect((await driver.findElements(By.css("main form"))).length).toBe(1); // one open at a time
    await visit(driver, `${demo.url}/kit/rigs`);
    await me.press("Copy Garden refractor");
    await me.see("Garden refractor, copy");
    await driver.executeScript("[...document.querySelectorAll('main details')].forEach((d) => (d.open = true))");
    expect(await me.value("Battery")).toBe("640");
    await me.fill("Battery", "90");
    await me.press("Save rig");
    await me.see("Add a rig");
    await visit(driver, `${demo.url}/kit/rigs/rig-refractor`);
    await me.see("What it sees");
    await driver.executeScript("[...document.querySelectorAll('main details')].forEach((d) => (d.open = true))");
    await me.fill("Battery", "90");
    await me.press("Save rig");
    await me.see("Add a rig");
    await visit(driver, `${demo.url}/projects/project-loop/budget`);
    await me.press("Add a short set");
    await me.see("Shot before the long subs of its night");
    await me.press("Save budget");
    await me.see("Saved");
    await visit(driver, `${demo.url}/nights`);
    await me.see("Battery");
    // A short set begins the night, though nothing else has a reason to change.
    await driver.wait(
      async () => /P\d Ha: \d+ × 30 s/.test(/P\d Ha: .*/.exec(await me.text())?.[0] ?? ""),
      WAIT_MS,
      "the short set should come first",
    );
    expect(await me.text()).toMatch(
      /Lasts until \d\d:\d\d at −?\d+ °C; the night needs till \d\d:\d\d: \d+\.\d h short\./,
    );
    expect(await me.text()).toMatch(/Battery lasts until \d\d:\d\d at −?\d+ °C; the night needs till \d\d:\d\d/);
    await close();
  });

  it("goes by keys alone, at 400 px, in the southern hemisphere, where the browser's position is refused", async () => {
    await open(400, 800);
    const active = () => driver.switchTo().activeElement();
    /** Goes on by Tab until something of these words has the focus. */
    const tabTo = async (words: string) => {
      for (let i = 0; i < 90; i++) {
        const here = await driver.executeScript<string>("const e = document.activeElement; return e === document.body ? '' : (e.getAttribute('aria-label') ?? '') + ' ' + e.textContent + ' ' + [...(e.labels ?? [])].map((l) => l.textContent).join(' ')"); // prettier-ignore
        if (here.includes(words)) return;
        await active().sendKeys(Key.TAB);
      }
      throw new Error(`no way by Tab to “${words}”`);
    };
    await tabTo("Use this computer");
    await active().sendKeys(Key.ENTER);
    await me.see("The browser was not allowed to give its position. Type a town, or coordinates");
    await tabTo("Latitude");
    await active().sendKeys("-95");
    await me.see("From −90 to 90");
    await active().sendKeys(Key.BACK_SPACE, Key.BACK_SPACE, "45.03");
    await tabTo("Longitude");
    await active().sendKeys("168.66");
    await tabTo("From these coordinates");
    await active().sendKeys(Key.ENTER);
    await me.see("Near Queenstown");
    await tabTo("telephoto lens 135 mm");
    await active().sendKeys(Key.ENTER);
    await me.see("With which camera?");
    await tabTo("photo camera, APS-C, 24 megapixels");
    await active().sendKeys(Key.ENTER);
    await me.see("How dark is it there");
    await tabTo("dark: the Milky Way casts structure");
    await active().sendKeys(Key.ENTER);
    await me.see("the best three, if it is clear");
    expect(await (await me.box("Mount")).getAttribute("value")).toBe("tracker");
    expect(await driver.executeScript("return document.documentElement.scrollWidth <= innerWidth")).toBe(true);
    await tabTo("Begin it tonight");
    await active().sendKeys(Key.ENTER);
    await me.see("Set up: legs firm, level, balance");
    await visit(driver, `${app.url}/kit`);
    await me.see("Near Queenstown");
    expect(await me.text()).toContain("Pacific/Auckland");
    await close();
  });

  it("takes what an exposure of one's own says: focal length by its solution, camera, place; and doubts a clock", async () => {
    await open();
    const start = Date.parse("2026-11-20T22:00:00Z");
    const file = (name: string, cards: Parameters<typeof writeFits>[0], writtenMs: number) => {
      const path = join(folder, name);
      writeFileSync(path, writeFits(cards));
      utimesSync(path, writtenMs / 1000, writtenMs / 1000);
      return path;
    };
    const scale = 1.99 / 3600;
    const solved = file(
      "solved.fits",
      [
        ["IMAGETYP", "Light Frame"], ["DATE-OBS", new Date(start).toISOString().slice(0, -1)], ["EXPTIME", 300], ["INSTRUME", "My camera"], ["GAIN", 100], ["FOCALLEN", 600], ["XPIXSZ", 4.63], ["XBINNING", 1], ["BAYERPAT", "RGGB"],
        ["SITELAT", 43.62], ["SITELONG", 1.93], ["CTYPE1", "RA---TAN"], ["CTYPE2", "DEC--TAN"], ["CRVAL1", 312.9], ["CRVAL2", 30.75], ["CRPIX1", 2072], ["CRPIX2", 1411], ["CD1_1", -scale], ["CD1_2", 0], ["CD2_1", 0], ["CD2_2", scale],
      ],
      start + 302_000 + 3_600_000,
    ); // prettier-ignore
    const pick = () => driver.findElement(By.css("input[type=file]"));
    await pick().sendKeys(solved);
    await me.see("focal length 480 mm, from its solution");
    await me.see("camera “My camera”; a colour sensor");
    await me.see("the camera’s clock, or this computer’s, seems to be 1 h behind");
    await me.see("with a refractor 480 mm f/6");
    await driver.wait(async () => (await me.text()).includes("I watch from Near"), WAIT_MS, "the place of the file");
    await me.press("village: the Milky Way is plain");
    await me.see("the best three, if it is clear");
    await me.press("Only keep place and rig");
    await me.see("What makes this better");
    await visit(driver, `${app.url}/kit/rigs`);
    await me.press("Refractor 480 mm f/6");
    expect(await me.value("Focal length")).toMatch(/^479\.9$|^480/);
    expect(await driver.executeScript("return document.querySelector('[name=cameraName]').value")).toBe("My camera");
    // Without a solution the header's word is taken, and said to be no more than that.
    await visit(driver, `${app.url}/start`);
    await me.see("I watch from");
    const plain = file("plain.fits", [["DATE-OBS", "2026-11-20T12:00:00"], ["EXPTIME", 60], ["IMAGETYP", "Light Frame"], ["FOCALLEN", 600], ["XPIXSZ", 3.8], ["SITELAT", 43.62], ["SITELONG", 1.93]], Date.now()); // prettier-ignore
    await pick().sendKeys(plain);
    await me.see("focal length 600 mm, as its header says, no solution in it");
    await me.see("By its own time the Sun was up when it was taken");
    const other = join(folder, "notes.fits");
    writeFileSync(other, "no picture at all");
    await pick().sendKeys(other);
    await me.see("notes.fits: no header that reads.");
    await me.see("a refractor"); // and nothing that was there is lost
    await close();
  });

  it("tells towns of one name apart, and keeps what is half answered over a reload", async () => {
    await open();
    await me.fill("Town near by", "Springfield");
    await me.see("Springfield, US near");
    const towns = await driver.findElements(By.css("[cmdk-item]"));
    const words = await Promise.all(towns.map((t) => t.getText()));
    expect(words.filter((w) => w.startsWith("Springfield, US")).length).toBeGreaterThanOrEqual(3);
    expect(new Set(words).size).toBe(words.length);
    await towns[0]!.click();
    await me.see("Through what?");
    await me.press("Newtonian 750 mm f/5");
    await me.see("With which camera?");
    await driver.navigate().refresh();
    await me.see("a Newtonian 750 mm f/5");
    await me.see("With which camera?");
    await close();
  });

  const samples = [
    ["A lens on a tracker, far south", "Behind the fern house", "The Large Cloud, one lens wide"],
    ["Two city balconies", "Fourth floor, to the south", "Jellyfish, by channels"],
    ["Three gardens", "Garden behind the mill", "The whole Veil, two by three"],
  ] as const;
  it.each(samples)("opens the sample %s, and every station of it", async (sample, place, project) => {
    await open();
    await me.press(`Open it: ${sample}`);
    await me.see(place);
    for (const [station, words] of [
      ["Targets", "up this night"],
      ["Projects", project],
      ["Season", "Keep the night free"],
      ["Nights", place],
      ["Log", "What we have"],
      ["Kit", place],
    ] as const) {
      await me.press(station);
      await me.see(words);
      expect(await me.text()).not.toContain("could not be computed");
    }
    await close();
  });
});
