import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { By, Key, until } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import {
  downloaded,
  hands,
  newProfile,
  openBrowser,
  type RunningApp,
  startApp,
  textOf,
  untilOffline,
  WAIT_MS,
} from "./browser";

const ROOT = new URL("..", import.meta.url).pathname;
const demo = (name: string) => join(ROOT, "public/demo", name);
const reference = (name: string) => join(ROOT, "reference/tables/fits", name);

/**
 * From the evening's verdict to a merged project, as a newcomer would go; each step finds what the one before it left. Once with the
 * server, and once after a single visit, with the server stopped and the browser started anew.
 */
describe.each(["with its server", "without its server"] as const)("the whole job, %s", (mode) => {
  const isOffline = mode === "without its server";
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;

  const open = async () => {
    driver = await openBrowser(profile.path);
    me = hands(driver);
    await driver.get(app.url);
  };
  /** The newest file in the download folder with an ending, once it is whole. */
  const given = async (ending: string): Promise<string> =>
    readFileSync(await downloaded(driver, profile.path, (f) => f.endsWith(ending)), "utf8");
  const chooseFiles = async (label: string, files: readonly string[]) => {
    const input = await driver.wait(until.elementLocated(By.css(`input[type=file][aria-label="${label}"]`)), WAIT_MS);
    await input.sendKeys(files.join("\n"));
  };

  beforeAll(async () => {
    app = await startApp();
    await open();
    if (!isOffline) return;
    await me.see("Go, from");
    await untilOffline(driver);
    expect(await app.stop()).toBe(0);
    await driver.quit();
    await open();
  });
  afterAll(async () => {
    await driver.quit();
    if (!isOffline) expect(await app.stop()).toBe(0);
    profile.remove();
  });

  it("opens on Tonight with the demo group's evening", async () => {
    await me.see("Go, from");
    await me.see("Saturday 5 December 2026");
    await me.see("Where the night goes");
  });

  it("1 · Kit: the field of view follows the focal length, wrong values are refused beside their box", async () => {
    await driver.findElement(By.css("body")).sendKeys("7");
    await me.see("Garden behind the mill");
    await me.press("Rigs");
    await me.press("Garden refractor");
    await me.see("2.29°");
    await me.fill("Focal length", "240");
    await me.see("4.58°");
    await me.fill("Focal length", "0");
    await me.see("More than 0 to 20000 mm; 0 is outside.");
    await me.fill("Focal length", "480");
    await me.fill("Pixel size", "0");
    await me.press("Save rig");
    await me.see("More than 0 to 30 µm; 0 is outside.");
    await me.fill("Pixel size", "4.63");
    await me.press("Save rig");
    await me.see("480 mm f/6.0");
  });

  it("1 · Kit: adds a place, whose time zone is found from its coordinates and whose skyline is text", async () => {
    await me.press("Places");
    await me.press("Add a place");
    await me.fill("Name", "Quarry rim");
    await me.fill("Latitude", "95");
    await me.fill("Longitude", "-68.2");
    await me.fill("Elevation", "high up");
    await me.fill("Darkness", "21.2");
    await me.fill("Points", "0 12\n400 20");
    await me.press("Save place");
    await me.see("From −90 to 90 °, north positive; 95 is outside.");
    await me.see("“high up” is not a number.");
    await me.see("azimuth runs from 0 to 360°");
    await me.fill("Latitude", "-23.1");
    await me.fill("Elevation", "2400");
    await me.fill("Points", "90 12");
    await driver.wait(async () => (await (await me.box("Time zone")).getAttribute("value")) !== "", WAIT_MS);
    await me.press("Save place");
    await me.see("One point would wall in the whole sky");
    await me.fill("Points", "90 12\n180 25\n270 8");
    await me.press("Save place");
    await me.see("Quarry rim");
    expect(await me.text()).toContain("America/");
  });

  it("1 · Kit: adds a rig", async () => {
    await me.press("Rigs");
    await me.press("Add a rig");
    await me.fill("Name", "Travel lens");
    for (const [label, value] of [
      ["Focal length", "135"],
      ["Aperture", "48"],
      ["Width", "6000"],
      ["Height", "4000"],
      ["Pixel size", "3.9"],
    ] as const)
      await me.fill(label, value);
    await me.press("Save rig");
    await me.see("Choose at least one filter");
    await driver.findElement(By.xpath("//label[contains(., 'No filter (colour)')]/input")).click();
    await me.press("Save rig");
    await me.see("135 mm f/2.8");
  });

  it("1 · Kit: takes a filter by its bandwidth, and one's own name", async () => {
    await me.press("Filters");
    await me.see("A new filter");
    await me.fill("Name in its files", "Ha 7 nm");
    await me.fill("Bandwidth", "0");
    await me.press("Add");
    await me.see("More than 0 to 1000 nm; 0 is outside.");
    await me.fill("Bandwidth", "7");
    await me.press("Add");
    await driver.wait(
      async () => (await driver.findElements(By.xpath("//h2//button[contains(., 'Ha 7 nm')]"))).length === 1,
      WAIT_MS,
    );
    await me.press("Data in and out");
    await me.fill("Your name", "Ines of the mill");
    await me.press("Save name");
    await me.see("Your name is changed.");
  });

  it("2 · Targets: ranks the catalogue, filters, finds by any name, and starts a project", async () => {
    await me.press("Targets");
    await me.see("up this night");
    for (const [query, id] of [
      ["m81", "M 81"],
      ["NGC 6960", "NGC 6960"],
      ["veil", "Cygnus Loop"],
      ["sh2-132", "Sh2-132"],
    ] as const) {
      await me.fill("Find", query);
      await me.see("by that name");
      await driver.wait(
        async () => (await textOf(driver, "[role=grid]").catch(() => "")).includes(id),
        10_000,
        `${query} did not bring ${id}`,
      );
    }
    await me.fill("Find", "");
    await me.choose("Kind", "supernova remnant");
    await me.choose("Size in my field", "needs a mosaic");
    await me.fill("At least", "2");
    await driver.findElement(By.css("body")).sendKeys(Key.chord(Key.CONTROL, "k"));
    await driver.wait(async () => (await driver.findElements(By.css("[cmdk-input]"))).length > 0, WAIT_MS);
    await driver.findElement(By.css("[cmdk-input]")).sendKeys("sh2-132");
    await me.press("Lion Nebula");
    await me.see("Its way over the skyline");
    await me.press("Start a project");
    await me.see("Whole frame");
  });

  it("3 · Frame: nudges and turns by key, makes a mosaic, refuses 60 % overlap, hands out the panels", async () => {
    const chart = await driver.findElement(By.css("canvas"));
    // by mouse: the frame follows the pointer, the wheel zooms
    const ra = async () => (await me.box("Right ascension")).getAttribute("value");
    const start = await ra();
    await driver
      .actions()
      .move({ origin: chart, x: 10, y: 10 })
      .press()
      .move({ origin: chart, x: 70, y: 10, duration: 200 })
      .release()
      .perform();
    await driver.wait(async () => (await ra()) !== start, WAIT_MS, "the frame did not follow the pointer");
    const high = () => textOf(driver, By.xpath("//p[contains(., 'high.')]"));
    const wide = await high();
    await driver.sendDevToolsCommand("Input.dispatchMouseEvent", {
      type: "mouseWheel",
      x: 450,
      y: 450,
      deltaX: 0,
      deltaY: -300,
    });
    await driver.wait(async () => (await high()) !== wide, WAIT_MS, "the wheel did not zoom");
    const declination = async () => (await me.box("Declination")).getAttribute("value");
    const before = await declination();
    await chart.sendKeys(Key.ARROW_UP, Key.ARROW_UP, ".");
    await driver.wait(async () => (await declination()) !== before, WAIT_MS);
    expect(await (await me.box("Position angle")).getAttribute("value")).toMatch(/^\d+\.0$/);
    await me.fill("Overlap", "60");
    await (await me.box("Overlap")).sendKeys(Key.ENTER);
    await me.see("From 0 to 50 %; 60 is outside.");
    await me.fill("Overlap", "20");
    await (await me.box("Overlap")).sendKeys(Key.ENTER);
    await me.choose("Columns", "2");
    await me.choose("Rows", "2");
    await me.see("4 panels: 4 times the hours");
    await me.see("Kept.");
    await me.press("Seams");
    await me.see("Mind stars brighter than");
    await me.press("Panels");
    await me.press("Download CSV");
    const csv = await given(".csv");
    expect(csv.split(/\r?\n/)[0]).toBe(
      "panel,name,row,column,ra_j2000,dec_j2000,ra_deg,dec_deg,position_angle_deg,field_width_arcmin,field_height_arcmin,mosaic_ra_deg,mosaic_dec_deg,mosaic_position_angle_deg",
    );
    expect(csv.trim().split(/\r?\n/)).toHaveLength(5);
    // the file says what the table shows
    const shown = await textOf(driver, By.xpath("//th[normalize-space(.)='P3']/following-sibling::td[1]"));
    expect(csv).toContain(
      shown
        .split("\n")[0]!
        .replace(/[hm]/g, "")
        .replace(/\.\ds$/, "."),
    ); // plain letters, for machines
  });

  it("4 · Budget: says which limit decides, takes hours, counts the clock", async () => {
    await me.press("Budget");
    await me.see("decided by");
    await me.fill("Hours a panel", "three");
    await me.see("“three” is not a number.");
    await me.fill("Hours a panel", "1.5");
    await me.press("Save budget");
    await me.see("Saved");
    await me.see("clock time");
  });

  it("5 · Plan: its share of the season, and odds", async () => {
    await me.press("Plan");
    await me.see("An even chance of being done by");
    await me.see("Its nights");
    expect((await driver.findElements(By.css("main ol > li"))).length).toBeGreaterThan(0);
  });

  it("6 · Season and Nights: the night given to it by hand, its sheet, and a calendar file", async () => {
    await me.press("Season");
    await me.see("of the best possible");
    const give = By.xpath("//button[contains(@aria-label, 'Lion Nebula') and (starts-with(@aria-label, 'Keep') or starts-with(@aria-label, 'This instead'))]"); // prettier-ignore
    await (await driver.wait(until.elementLocated(give), WAIT_MS)).click();
    await me.see("is kept.");
    await me.press("Nights");
    await me.see("Lion Nebula");
    await me.see("Set up: legs firm, level, balance");
    await me.see("Dark: Sun below −18°");
    await me.see("Checklist");
    await me.press("To my calendar");
    const ics = await given(".ics");
    expect(ics).toMatch(/^BEGIN:VCALENDAR\r\nVERSION:2\.0/);
    expect(ics.match(/BEGIN:VEVENT/g)!.length).toBe(ics.match(/END:VEVENT/g)!.length);
    expect(ics).toMatch(/DTSTART:20261205T\d{6}Z/);
    await me.press("as JSON");
    const night = JSON.parse(await given("night-2026-12-05.json")) as { format: string; lines: { kind: string; target?: string }[] }; // prettier-ignore
    expect(night.format).toBe("zenithar-night");
    expect(night.lines.some((l) => l.kind === "exposures" && l.target)).toBe(true);
    await me.press("as a table");
    expect(await given("night-2026-12-05.csv")).toMatch(/^start_utc,end_utc,/);
    const pdf = await driver.sendAndGetDevToolsCommand("Page.printToPDF", {});
    const pages = Buffer.from((pdf as unknown as { data: string }).data, "base64")
      .toString("latin1")
      .match(/\/Type\s*\/Page[^s]/g)!.length;
    expect(pages).toBe(1);
  });

  it("7 · Log: books by hand and from files, names what is malformed, and counts nothing twice", async () => {
    await me.press("Log");
    await me.press("Or by hand, box by box");
    await me.choose("Project", "The whole Veil");
    await me.fill("Taken", "15");
    await me.fill("Kept", "16");
    await me.press("Add entry");
    await me.see("Only 15 were taken.");
    await me.fill("Kept", "11");
    await me.press("Add entry");
    await me.see("Why were some not kept?");
    await me.choose("Not kept, or lost, because of", "wind");
    await me.press("Add entry");
    await me.see("11 of 15");
    const lights = readdirSync(join(ROOT, "public/demo"))
      .filter((f) => f.endsWith(".fits"))
      .map(demo);
    const all = [
      ...lights,
      reference("bad_01.fits"),
      reference("bad_02.fits"),
      reference("bad_05.fits"),
      reference("dark_01.fits"),
      join(ROOT, "README.md"),
    ];
    await chooseFiles("Exposure files", all);
    await me.see("11 files: 7 to add, 0 already here, 4 left out."); // nothing is written before a yes
    await me.press("Add 7 exposures");
    await me.see("11 files: 7 added, 0 already here, 4 left out.");
    await me.see("The whole Veil, two by three: P5 OIII, night of 2026-12-04");
    const report = await textOf(driver, "[role=status]");
    for (const words of [
      "bad_01.fits: the header is cut short",
      "bad_02.fits: neither a FITS file nor a picture",
      "bad_05.fits: the file is cut short",
      "README.md: neither a FITS file nor a picture",
    ])
      expect(report).toContain(words);
    await chooseFiles("Exposure files", all);
    await me.see("11 files: 0 to add, 7 already here, 4 left out.");
    await me.see("Brought in from files");
    await me.see("11 files, 7 added, 0 already here, 4 left out");
    await me.see("6 of 6 × 300 s");
    await me.press("Projects");
    await me.press("The whole Veil");
    await me.see("1 h 20 of"); // P5 OIII: 50 min of October and 30 min of last night
  });

  it("8 · Crew: a friend's file is looked at, joined once, and changes nothing the second time", async () => {
    await me.press("Projects");
    await me.press("Sh2-216, three gardens");
    await me.press("Crew");
    await me.see("2 h 30");
    await chooseFiles("Import a friend's file", [demo("from-wren.zenithar.json")]);
    await me.see("Wren: 35 subs, 2 h 55 of OIII");
    await me.press("Merge");
    await me.see("5 h 25");
    await me.see("1 h 28");
    await chooseFiles("Import a friend's file", [demo("from-wren.zenithar.json")]);
    await me.see("Nothing new: all");
    await me.press("Close");
    await me.press("Export this project");
    const file = JSON.parse(await given(".zenithar.json")) as { format: string; records: { kind: string }[] };
    expect(file.format).toBe("zenithar-bundle");
    expect(file.records.filter((r) => r.kind === "contribution")).toHaveLength(58);
  });

  it("9 · all is there after closing the browser, and after exporting, clearing and importing everything", async () => {
    await driver.quit();
    await open();
    await me.see("Go, from");
    await me.press("Kit");
    await me.see("Quarry rim");
    await me.press("Data in and out");
    const summary = "5 places, 5 rigs, 4 projects";
    await me.see(summary);
    await me.press("Export everything");
    const backup = await downloaded(driver, profile.path, (f) => f.includes("everything") && f.endsWith(".json"));
    await me.press("Delete everything");
    await me.see("0 places, 0 rigs, 0 projects");
    await me.press("Put everything back");
    await me.see(summary);
    await me.press("Delete everything");
    await me.see("0 places, 0 rigs, 0 projects");
    await chooseFiles("Import a file", [backup]);
    await me.see("My own backup");
    await me.see("You are: nobody yet →");
    await me.press("Merge");
    await me.see(summary);
    await me.press("Projects");
    await me.see("Lion Nebula");
  });

  it("ran without a refused script, style or request", async () => {
    const logs = await driver.manage().logs().get("browser");
    const severe = logs.filter((l) => l.level.name === "SEVERE").map((l) => l.message);
    // Without the server its forecasts and its new versions cannot be asked for; nothing else may be missing.
    const isExpected = (m: string) =>
      isOffline && /ERR_CONNECTION_REFUSED/.test(m) && /\/services\/forecast\/|\/sw\.js/.test(m);
    expect(severe.filter((m) => !isExpected(m))).toEqual([]);
  });
});
