import { By, until } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeStage, newProfile, openStage, type Stage, textOf, visit, WAIT_MS } from "./browser";

const MINUTE = 60_000;
const DAY = 1440;

/** "11 h 50" as minutes. */
const minutesOf = (text: string): number => {
  const found = /(\d+) h (\d\d)/.exec(text);
  if (!found) throw new Error(`no span in “${text}”`);
  return 60 * Number(found[1]) + Number(found[2]);
};
/** "23:40" as minutes after noon, so that a night runs upwards. */
const clockOf = (text: string): number => (60 * Number(text.slice(0, 2)) + Number(text.slice(3, 5)) + DAY / 2) % DAY;
/** Distance of two clock times in minutes. */
const apart = (a: number, b: number): number => Math.abs(((a - b + 1.5 * DAY) % DAY) - DAY / 2);

/**
 * Clock time of an upper transit in the night that begins at a civil noon, from mean sidereal time (Meeus, Astronomical
 * Algorithms, eq. 12.4), none of the app's own code. Good to 2 minutes: catalogue places of J2000, no nutation.
 */
function transitClock(raDeg: number, longitudeDeg: number, noonUtc: number, offsetMin: number): number {
  const days = (noonUtc - Date.UTC(2000, 0, 1, 12)) / (DAY * MINUTE);
  const siderealDeg = 280.46061837 + 360.98564736629 * days + longitudeDeg;
  const untilDeg = (((raDeg + 0.35 - siderealDeg) % 360) + 360) % 360; // 0.35° of precession since 2000
  const ms = noonUtc + (untilDeg / 360.98564736629) * DAY * MINUTE;
  return clockOf(new Date(ms + offsetMin * MINUTE).toISOString().slice(11, 16));
}

describe("places all over the world", () => {
  const profile = newProfile();
  let { app, driver, me } = {} as Stage;
  beforeAll(async () => {
    ({ app, driver, me } = await openStage(profile.path));
  });
  afterAll(() => closeStage({ app, driver }, profile));

  /** Adds a place with a level horizon by its form; its id, for addresses. */
  async function addPlace(name: string, latitude: string, longitude: string): Promise<string> {
    await visit(driver, `${app.url}/kit/places/new`);
    await me.fill("Name", name);
    await me.fill("Latitude", latitude);
    await me.fill("Longitude", longitude);
    await me.fill("Elevation", "20");
    await me.fill("Darkness", "21");
    await me.fill("Lowest altitude used", "10");
    await driver.wait(async () => (await (await me.box("Time zone")).getAttribute("value")) !== "", WAIT_MS);
    await me.press("Save place");
    const link = await driver.wait(
      async () => (await driver.findElements(By.xpath(`//a[contains(., ${JSON.stringify(name)})]`)))[0],
      10_000,
    );
    return /places\/([^?/]+)/.exec((await link!.getAttribute("href"))!)![1]!;
  }
  /** Opens a target's page: its usable minutes, the runs of its night, and its transit. */
  async function targetPage(id: string, placeId: string, night: string) {
    await visit(driver, `${app.url}/targets/${encodeURIComponent(id)}?place=${placeId}&night=${night}`);
    await me.see("Where the night goes");
    await me.see("Its way over the skyline");
    const text = await me.text();
    const strip = (await driver.findElement(By.css("main [role=img][aria-label*=' to ']")).getAttribute("aria-label"))!;
    const runs = [...strip.matchAll(/(\d\d:\d\d) to (\d\d:\d\d) ([^,;]+)/g)].map((m) => ({
      from: clockOf(m[1]!),
      to: clockOf(m[2]!),
      cause: m[3]!.trim(),
    }));
    const transit = /highest (\d+)° at (\d\d:\d\d)/.exec(text);
    return {
      text,
      runs,
      usable: /Nothing usable this night/.test(text) ? 0 : minutesOf(/\d+ h \d\d usable/.exec(text)![0]),
      transit: transit ? { altitude: Number(transit[1]), at: clockOf(transit[2]!) } : null,
    };
  }

  it("a wall drawn over the whole east leaves what comes after the meridian, to the minute", async () => {
    const id = await addPlace("Level field", "45", "5");
    const before = await targetPage("M 42", id, "2026-12-12");
    const usable = before.runs.find((r) => r.cause === "usable")!;
    expect(Math.abs(before.usable - (usable.to - usable.from))).toBeLessThanOrEqual(3);
    expect(Math.abs(before.transit!.altitude - 40)).toBeLessThanOrEqual(1); // 90 − 45 − 5.4

    await visit(driver, `${app.url}/kit/places/${id}`);
    const panorama = await driver.wait(until.elementLocated(By.css("svg[aria-label^='Panorama']")), WAIT_MS);
    await driver.executeScript("return document.fonts.ready.then(() => true)");
    await driver.executeScript("arguments[0].scrollIntoView({block:'center'})", panorama);
    const { width, height } = await panorama.getRect();
    const press = async (azimuth: number, altitude: number) =>
      driver
        .actions()
        .move({
          origin: panorama,
          x: Math.round((azimuth / 360 - 0.5) * width),
          y: Math.round((0.5 - altitude / 80) * height),
        })
        .click()
        .perform();
    const points = async () => ((await (await me.box("Points")).getAttribute("value")) ?? "").trim().split("\n");
    const drawn = async () => (await points()).filter((p) => p !== "").length;
    for (const [i, [azimuth, altitude]] of ([[2, 60], [178.5, 60], [181.5, 1], [357, 1]] as const).entries()) {
      await driver.wait(
        async () => {
          if ((await drawn()) === i + 1) return true;
          // Scrolled again each time: the page settles its own scroll position once it has loaded.
          await driver.executeScript("arguments[0].scrollIntoView({block:'center'})", panorama);
          await press(azimuth, altitude);
          return driver.wait(async () => (await drawn()) === i + 1, 1000).catch(() => false);
        },
        10_000,
        `point ${i + 1} should be drawn`,
      );
    } // prettier-ignore
    // by key: the last but one point is moved a degree west and back
    await driver.findElement(By.css("[aria-label^='Point 3 of 4']")).sendKeys("\uE014");
    const moved = (await points())[2];
    await driver.findElement(By.css("[aria-label^='Point 3 of 4']")).sendKeys("\uE012");
    await driver.wait(async () => (await points())[2] !== moved, WAIT_MS, "the arrow key should move the point");
    await me.press("Save place");
    await driver.wait(until.urlMatches(/\/kit(\?|$)/), WAIT_MS);

    const after = await targetPage("M 42", id, "2026-12-12");
    const expected = usable.to - before.transit!.at;
    expect(Math.abs(after.usable - expected)).toBeLessThanOrEqual(6); // the edge leans over 3° of azimuth
    expect(after.runs.some((r) => r.cause === "skyline")).toBe(true);
  });

  it("July at 60° north: no dark night, the date when it is dark again, and the list for it", async () => {
    const id = await addPlace("White nights", "60", "25");
    await visit(driver, `${app.url}/?place=${id}&night=2026-07-01`);
    const stay = await (await me.see("First dark night here")).getText();
    // Under 21.0 mag/arcsec² half the light is left with the Sun 13.25° down (MATHS 2.12), which it reaches below 60° N when its
    // declination falls below 16.75°: 6 August, give or take a night (plain geometry).
    const day = /(\d+) August 2026/.exec(stay);
    expect(Math.abs(Number(day?.[1]) - 6)).toBeLessThanOrEqual(1);
    await visit(driver, `${app.url}/targets?place=${id}&night=2026-07-01`);
    await me.see("this is the list for it");
    await me.see("up this night");
  });

  it("the south: M 31 stays low and says so, the sky's south is high, and clocks are the place's own", async () => {
    const id = await addPlace("Southern ridge", "-33.9", "151.2");
    const south = await targetPage("NGC 104", id, "2026-12-05");
    expect(Math.abs(south.transit!.altitude - (90 - (72.08 - 33.9)))).toBeLessThanOrEqual(1);
    const expected = transitClock(6.02, 151.2, Date.UTC(2026, 11, 5, 1), 660); // daylight saving: UTC+11
    expect(apart(south.transit!.at, expected)).toBeLessThanOrEqual(3);
    await visit(driver, `${app.url}/targets?place=${id}&night=2026-12-05`);
    await me.see("up this night");
    await me.fill("Find", "m31");
    await me.see("tops out at 15°");
    await me.choose("Lowest altitude", "30°");
    await me.see("but never reach 30°");
    await me.fill("Find", "m31");
    await driver.wait(async () => (await textOf(driver, "[role=grid]").catch(() => "")).includes("nothing"), 10_000);
  });

  it("the date line, and clocks 45 minutes off: the transit comes when sidereal time says", async () => {
    const west = await addPlace("Lagoon", "-17.8", "179.9");
    const fiji = await targetPage("NGC 253", west, "2026-12-05");
    expect(apart(fiji.transit!.at, transitClock(11.888, 179.9, Date.UTC(2026, 11, 5, 0), 720))).toBeLessThanOrEqual(3);
    const east = await addPlace("Far cape", "-43.9", "-176.5");
    const chatham = await targetPage("NGC 253", east, "2026-12-05");
    expect(
      apart(chatham.transit!.at, transitClock(11.888, -176.5, Date.UTC(2026, 11, 4, 22, 15), 825)),
    ).toBeLessThanOrEqual(3);
    expect(chatham.text).toContain("Saturday 5 December 2026");
  });

  it("the night the clocks go back is right on both sides, and an hour longer than it reads", async () => {
    const id = await addPlace("Clock change", "48", "2");
    const nights = { before: "2027-10-29", change: "2027-10-30", after: "2027-10-31" }; // the Moon is new;
    const edge = async (night: string) => {
      const { runs, usable } = await targetPage("NGC 7000", id, night);
      const dark = runs.filter((r) => r.cause !== "light sky");
      return { dusk: dark[0]!.from, dawn: dark.at(-1)!.to, usable };
    };
    const [before, change, after] = [await edge(nights.before), await edge(nights.change), await edge(nights.after)];
    // Darkness moves by two minutes a night; all else is the clock.
    expect(apart(change.dusk, before.dusk)).toBeLessThanOrEqual(5);
    expect(apart(change.dusk, after.dusk + 60)).toBeLessThanOrEqual(5);
    expect(apart(change.dawn, after.dawn)).toBeLessThanOrEqual(5);
    expect(apart(change.dawn, before.dawn - 60)).toBeLessThanOrEqual(5);
    expect(Math.abs(change.usable - before.usable)).toBeLessThanOrEqual(12);
  });

  it("reads in feet, miles an hour, °F and by twelve hours where its owner does; what is kept stays metric; words lead to the glossary", async () => {
    const pageIn = async (path: string, until: string) => {
      await visit(driver, `${app.url}${path}`);
      await me.see(until);
      return textOf(driver, "body");
    };
    expect(await pageIn("/kit", "Garden behind the mill")).toContain("240 m");
    await pageIn("/kit/rules", "How it is written");
    await me.choose("Clock times", "9:05 pm");
    await me.choose("Units", "feet, inches");
    await me.press("Save");
    await me.see("Your rules are saved.");
    expect(await pageIn("/kit", "Garden behind the mill")).toContain("787 ft");
    // As written down by the tests of the sky: sunset on the sheet at 17:15 by the clock of the place.
    const sheet = await pageIn("/nights", "Sunset");
    expect(sheet).toContain("5:15 pm");
    expect(sheet).not.toMatch(/\b\d{2}:\d{2}\b(?! (?:am|pm))/);
    expect(sheet).toMatch(/the camera holds 14 °F/);
    expect(sheet).not.toContain("°C");
    await me.fill("Clear from", "9 pm");
    await driver.wait(until.urlContains("from=21%3A00"), WAIT_MS);
    await pageIn("/kit/places/place-garden", "Elevation");
    await me.fill("Elevation", "800 ft");
    await me.see("800 ft");
    await me.press("What is “Elevation”?");
    await me.press("In the glossary");
    await driver.wait(until.urlContains("/kit/glossary#elevation"), WAIT_MS);
    await me.fill("Look for", "seam");
    await me.see("Where two panels overlap.");
    await me.gone("Metres above the sea");
    await visit(driver, `${app.url}/kit/places/place-garden`);
    await me.see("Not saved yet");
    await me.press("Save place");
    await me.see("Add a place");
    await pageIn("/kit/rules", "How it is written");
    await me.choose("Units", "metres");
    await me.choose("Clock times", "21:05");
    await me.press("Save");
    await me.see("Your rules are saved.");
    expect(await pageIn("/kit", "Garden behind the mill")).toContain("244 m");
  });
});
