import { By, Key, until } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeStage, newProfile, openStage, type Stage, textOf, visit, WAIT_MS } from "./browser";

describe("choosing a target", () => {
  const profile = newProfile();
  let { app, driver, me } = {} as Stage;
  beforeAll(async () => {
    ({ app, driver, me } = await openStage(profile.path));
  });
  afterAll(() => closeStage({ app, driver }, profile));

  /** The list's text; "" while it is empty. */
  const grid = () => textOf(driver, "[role=grid]").catch(() => "");

  it("orders, narrows and changes the altitude school, and tells what that leaves out", async () => {
    await visit(driver, `${app.url}/targets`);
    await me.see("up this night");
    const counted = async () => Number(/(\d+) up this night/.exec(await me.text())?.[1]);
    const all = await counted();
    await me.choose("Season", "closing within 6 weeks");
    await driver.wait(async () => (await counted()) < all, WAIT_MS);
    expect(await grid()).toMatch(/[1-6] weeks? left/);
    await me.choose("Order", "closing soonest");
    expect(await textOf(driver, "[aria-sort=ascending]")).toContain("Season");
    await me.press("Season");
    await me.choose("Season", "any");
    await me.choose("Lowest altitude", "35°");
    await me.see("but never reach 35°");
    await driver.wait(async () => (await counted()) < all, WAIT_MS);
    await me.choose("Lowest altitude", "take what there is");
    await driver.wait(async () => (await counted()) > all, WAIT_MS);
  });

  it("is walked by keys alone: down, up, end, and Enter opens", async () => {
    await visit(driver, `${app.url}/targets`);
    await driver.wait(until.elementLocated(By.css("[role=grid] a")), WAIT_MS);
    const first = await driver.findElement(By.css("[role=row][aria-rowindex='2'] a"));
    await driver.executeScript("arguments[0].focus()", first);
    const focused = () => driver.executeScript<string>("return document.activeElement.closest('[role=row]')?.getAttribute('aria-rowindex')"); // prettier-ignore
    const key = (k: string) => driver.actions().sendKeys(k).perform();
    await key(Key.ARROW_DOWN);
    await key(Key.ARROW_DOWN);
    await driver.wait(async () => (await focused()) === "4", WAIT_MS);
    await key(Key.ARROW_UP);
    await driver.wait(async () => (await focused()) === "3", WAIT_MS);
    await key(Key.END);
    const last = await driver.findElement(By.css("[role=grid]")).getAttribute("aria-rowcount");
    await driver.wait(async () => (await focused()) === last, WAIT_MS, "End should go to the last row");
    await key(Key.HOME);
    await driver.wait(async () => (await focused()) === "2", WAIT_MS);
    await key(Key.ENTER);
    await driver.wait(until.urlMatches(/\/targets\/.+/), WAIT_MS);
  });

  it("says that comets and planets are out of scope", async () => {
    await visit(driver, `${app.url}/targets`);
    await me.fill("Find", "C/2023 A3");
    await me.see("Comets move from hour to hour and are out of scope here.");
    await me.fill("Find", "saturn");
    await me.see("out of scope here; objects of that name are listed below");
    await driver.wait(async () => (await grid()).includes("NGC 7009"), WAIT_MS);
  });

  it("makes a typed position a target of one's own, beside a listed neighbour, and starts a project there", async () => {
    await visit(driver, `${app.url}/targets`);
    await me.fill("Find", "20h47m +30 30");
    await me.press("Make 20h 47m 00.0s");
    await me.see("Read as 20h 47m 00.0s, +30° 30′ 00″ (from hours), in Cyg");
    await me.press("Add target");
    await me.see("Give a name, 120 letters at most.");
    expect(await (await me.box("Position")).getAttribute("value")).toBe("20h47m +30 30");
    await me.fill("Name", "<i>Faint</i> tuft");
    await me.fill("Size", "8");
    await me.choose("Aim at", "NGC 6960");
    await me.press("Add target");
    await me.see("Its way over the skyline");
    expect(await textOf(driver, "h1")).toBe("<i>Faint</i> tuft");
    await me.press("Start a project");
    await me.see("Whole frame");
    // NGC 6960, the neighbour, at 20h 45.7m: what one aims at
    expect(await (await me.box("Right ascension")).getAttribute("value")).toMatch(/^20h 45m/);
    expect(await me.text()).toContain("<i>Faint</i> tuft");
    await visit(driver, `${app.url}/targets`);
    await me.fill("Find", "tuft");
    await driver.wait(async () => (await grid()).includes("<i>Faint</i> tuft"), WAIT_MS);
  });

  it("says on a target's page which detail comes out, what the months bring, and when the drive pays", async () => {
    await visit(driver, `${app.url}/targets/NGC%20891`);
    await me.see("Is a detail resolvable?");
    await me.fill("Detail, a pair for example", "2");
    await me.see("Melts into one.");
    await me.fill("Detail, a pair for example", "12");
    await me.see("Comes out plainly apart.");
    await driver.findElement(By.xpath("//summary[contains(., 'twelve months')]")).click();
    await me.see("to be expected");
    expect(await me.text()).toMatch(/With 2 h 10 of driving it (pays off from \d h \d\d|does not pay off)/);
  });

  it("finds it by stars: a way in hops, another time, a turned chart", async () => {
    await me.press("Find it by stars");
    await me.see("Begin here.");
    const way = async () => textOf(driver, By.xpath("//ol[contains(., 'Begin here.')]"));
    const first = await way();
    expect(first).toMatch(/\d\.\d° (up|down|left|right)/);
    const chart = async () => driver.findElement(By.css("svg[role=img]")).getAttribute("innerHTML");
    const upright = await chart();
    await me.choose("Chart", "mirrored");
    await driver.wait(async () => (await chart()) !== upright, WAIT_MS);
    await me.choose("Time", "22:00");
    await driver.wait(async () => (await way()) !== first, WAIT_MS);
    expect(await me.text()).toContain("22:00 at Garden behind the mill");
    await me.see("Test shot");
    await me.choose("Time", "06:00");
    await me.see("behind your skyline");
  });
});
