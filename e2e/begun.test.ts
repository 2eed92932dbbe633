import { By } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeStage, newProfile, openStage, type Stage, textOf, WAIT_MS } from "./browser";

/** A night that has begun: it stays as it was planned, whatever the hour, until somebody decides otherwise. The clock is moved by hand. */
describe("a night that has begun", () => {
  const profile = newProfile();
  let stage: Stage;
  const main = () => textOf(stage.driver, "main");
  const at = (utc: string) =>
    stage.driver.executeScript(`document.documentElement.dataset.now = String(Date.parse("2026-12-${utc}:00Z"))`);
  const go = async (name: string, words: string) => {
    // Away and back, so that the page is asked anew.
    await stage.driver.findElement(By.xpath("//nav//a[contains(., 'Log')]")).click();
    await stage.me.see("What we have");
    await stage.driver.findElement(By.xpath(`//nav//a[contains(., '${name}')]`)).click();
    await stage.me.see(words);
  };
  const headline = async () => textOf(stage.driver, "main h1");
  /** The work of the sheet: its lines of subs, whatever is marked beside them. */
  const subs = async () => (await main()).split("\n").filter((l) => /\d+ × \d+ s/.test(l) && l.includes("through"));

  beforeAll(async () => {
    stage = await openStage(profile.path);
    await stage.driver.get(stage.app.url);
    await stage.me.see("Go, from");
    await stage.driver.wait(async () => !(await main()).includes("Provisional"), WAIT_MS, "forecasts that answer");
  });
  afterAll(() => closeStage(stage, profile));

  it("keeps the sheet it had, marks what is now, and never sends anybody in while the kit stands outside", async () => {
    const { driver, me } = stage;
    await at("05T17:20");
    await me.press("I am outside: begin the night");
    await me.see("tonight stays as it was planned then");
    await go("Nights", "Checklist");
    const planned = await subs();
    expect(planned.length).toBeGreaterThan(3);
    expect(await main()).toContain("Begun at 18:20");

    await at("05T20:40"); // 21:40 by its clock
    await go("Tonight", "From now on");
    expect(await headline()).toMatch(/^(Now|Next): .+ in .+ until \d\d:\d\d/);
    await go("Nights", "Checklist");
    expect(await subs()).toEqual(planned);
    expect(await driver.findElements(By.css("main li[aria-current='step']"))).toHaveLength(1);

    await at("05T23:30"); // 00:30
    await go("Tonight", "From now on");
    await me.press("It is clear");
    await me.see("The night goes on as planned.");
    await go("Nights", "Checklist");
    expect(await subs()).toEqual(planned);

    await at("06T01:10"); // 02:10
    await go("Tonight", "From now on");
    await me.press("It is cloudy");
    await me.see("planned anew");
    await driver.wait(async () => !/^(Now|Next):/.test(await headline()), WAIT_MS, "another word than to go on");
    expect(await main()).not.toContain("Stay in");
    expect(await headline()).toMatch(/Wait until|darks|Pack up|pack up/);
    await go("Nights", "Checklist");
    // What has been stays; what is to come may change.
    const past = planned.slice(0, 3);
    expect((await subs()).slice(0, 3)).toEqual(past);

    await at("06T04:00"); // 05:00
    await go("Tonight", "Look up");
    expect(await main()).not.toContain("Stay in");
  });
});
