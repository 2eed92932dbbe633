import { By } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import {
  closeStage,
  hands,
  newProfile,
  openBrowser,
  type Stage,
  startPlainDemo,
  textOf,
  visit,
  WAIT_MS,
} from "./browser";

/** How a picture is shot, a stretch kept by hand, and a night that is planned anew while it goes on. */
describe("shooting", () => {
  const profile = newProfile();
  let stage: Stage;
  const main = () => textOf(stage.driver, "main");
  const waitFor = (is: () => Promise<boolean>, words: string) => stage.driver.wait(is, WAIT_MS, words);
  const label = async (date: string) =>
    (await (await stage.driver.findElement(By.css(`a[data-night="${date}"]`))).getAttribute("title")) ?? "";
  const openRules = () =>
    stage.driver.executeScript("[...document.querySelectorAll('main details')].forEach((d) => (d.open = true))");

  beforeAll(async () => {
    const driver = await openBrowser(profile.path);
    stage = { app: await startPlainDemo(), driver, me: hands(driver) };
    await stage.driver.get(stage.app.url);
    await stage.me.see("Go, from");
  });
  afterAll(() => closeStage(stage, profile));

  it("takes a project's rules, refuses what it cannot read, and shoots by them: channels in turn, in rounds over the panels", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/projects/project-loop/plan`);
    await me.press("Change");
    await me.see("How it is shot");
    await openRules();
    await me.fill("Channels in turn", "OIII Ha OIII");
    await me.see("Two or more of Ha, OIII, each once");
    expect(await driver.findElement(By.xpath("//button[.='Save']")).isEnabled()).toBe(false);
    await me.fill("Channels in turn", "2 OIII, Ha");
    await me.fill("Subs of a panel in a row", "3");
    await me.fill("Clear nights in a row", "7");
    await me.see("Between 2 and 4.");
    await me.fill("Clear nights in a row", "");
    // Before all others, so that evenings are its own: two plans within the proven distance may differ in whose they are.
    await me.choose("Against my other projects", "first: its hours count double");
    await me.press("Save");
    await me.see("2 OIII, Ha in turn.");
    await visit(driver, `${app.url}/season?night=2026-12-05`);
    await me.see("Keep the night free");
    // Which evening gets them may differ from plan to plan; that an evening does may not.
    const inTurn = () => driver.findElements(By.css("a[data-night][title*='2 OIII, Ha']"));
    await waitFor(async () => (await inTurn()).length > 0, "an evening with channels in turn");
    const date = (await (await inTurn())[0]!.getAttribute("data-night"))!;
    await visit(driver, `${app.url}/nights?night=${date}`);
    await me.see("in turn");
    const sheet = await main();
    expect(sheet).toMatch(/\d+ rounds? in turn, to \d\d:\d\d/);
    expect(sheet).toMatch(/OIII: 2 × 300 s a round through .+, \d+ in all/);
    expect(sheet).toMatch(/Ha: 1 × 300 s a round/);
  });

  it("waits for clear nights in a row where a project wants them, and says so", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/projects/project-loop/plan`);
    await me.press("Change");
    await openRules();
    await me.fill("Channels in turn", "");
    await me.fill("Clear nights in a row", "4");
    await me.press("Save");
    await me.see("four clear nights in a row");
    await visit(driver, `${app.url}/season`);
    await me.see("four clear nights in a row");
    await visit(driver, `${app.url}/projects/project-loop/plan`);
    await me.press("Change");
    await openRules();
    await me.fill("Clear nights in a row", "");
    await me.press("Save");
    await me.gone("four clear nights in a row");
  });

  it("keeps one stretch of an evening by hand, and rules one out", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/season?night=2026-12-05`);
    await me.see("of the best possible");
    await me.see("keep this stretch");
    const [, project, channel] = /Keep this stretch: (.+) in (\w+)/.exec(
      (await driver.findElement(By.xpath("//button[starts-with(@aria-label, 'Keep this stretch')]")).getAttribute("aria-label"))!,
    )!; // prettier-ignore
    await me.press(`Not this one: ${project} in ${channel}`);
    await me.see("Not on Sat 5 Dec.");
    await me.see(`${project} in ${channel}`);
    await waitFor(async () => {
      const aside = await textOf(driver, "main aside");
      return aside.includes("ruled out: allow") && !new RegExp(`${project}, ${channel} ·`).test(aside);
    }, "the stretch should be gone");
    await me.press(`Ruled out: allow ${project} in ${channel} again`);
    await me.see("1 lock let go.");
  });

  it("plans the rest of a night anew when cloud comes: wait, darks, then on, with what going home would give up; and takes it back", async () => {
    const { driver, app, me } = stage;
    await driver.get(app.url); // without what the last step offers to undo
    await me.see("Look up");
    await me.press("It is cloudy");
    await me.see("What is left of the night is planned anew.");
    // What can be undone stays as long as the pointer rests on it, however long the plan takes.
    const undo = await driver.findElement(By.xpath("//button[normalize-space(.) = 'Undo']"));
    await driver.actions().move({ origin: undo }).perform();
    await me.see("From now on");
    const words = await textOf(driver, "section[aria-labelledby=rest-of-tonight]");
    expect(words).toMatch(/Wait until \d\d:\d\d: then \d+ % likely to be clear\./);
    expect(words).toContain("Take darks now: cap on:");
    expect(words).toMatch(/until \d\d:\d\d/);
    expect(words).toMatch(/Pack up from \d\d:\d\d on|under a roof by/);
    expect(words).toMatch(/Going home now would give up \d h \d\d of clear time/);
    await me.press("Undo");
    await me.gone("From now on");
  });

  it("the morning after a clouded night writes it down in one press, and all that hung on it is still to do on the nights to come", async () => {
    const { driver, app, me } = stage;
    await visit(driver, `${app.url}/season?night=2026-12-05`);
    await me.see("Keep the night free");
    await waitFor(async () => (await main()).includes("by the clock"), "the plan should be whole");
    const toGo = (text: string) => /The whole Veil, two by three\s*\n(\d+ h \d\d) to go/.exec(text)?.[1];
    const before = toGo(await main());
    await driver.sleep(3500); // read it: what comes then is compared with it
    const planned = await label("2026-12-05");
    expect(planned).toMatch(/The whole Veil|Sculptor|Sh2-216/);
    await app.stop();
    const { port } = new URL(app.url);
    stage = { ...stage, app: await startPlainDemo({ PORT: port, ZENITHAR_DEMO_NOW: "2026-12-06T16:40:00Z" }) };
    await driver.get(`${app.url}/?night=2026-12-05`); // another morning
    await me.see("How was it?");
    await me.press("It was cloudy");
    await me.see("written down.");
    await visit(driver, `${app.url}/season?night=2026-12-06`);
    await me.see("Keep the night free");
    expect(await label("2026-12-05")).toContain("gone by");
    await waitFor(async () => toGo(await main()) !== undefined, "the plan should be whole");
    expect(toGo(await main())).toBe(before); // nothing was taken, so all of it is still to do
    // A plan stays: the nights to come take what hung on it without having to move.
    expect(await label("2026-12-06")).toMatch(/The whole Veil|Sculptor|Sh2-216/);
  });
});
