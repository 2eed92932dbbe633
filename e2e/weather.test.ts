import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { By } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, newProfile, openBrowser, type RunningApp, startApp, textOf, visit, WAIT_MS } from "./browser";

const EVENING = { ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z", ZENITHAR_OFFLINE: "off" };

/** An evening with three forecast services of which one hangs, one is down and one talks partly nonsense. */
describe("tonight with unreliable forecasts", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  /** The row of the board that begins with a name, as its texts. */
  const row = async (name: string) =>
    textOf(driver, By.xpath(`//table[@aria-label='Forecasts by hour']//tr[th[contains(., '${name}')]]`));
  const odds = async (name: string) => (await row(name)).match(/\d+/g)!.slice(-15).map(Number);
  /** Opens the app with services in this state; on the same address again, so that the browser finds its data. */
  const open = async (services: string, port?: string) => {
    app = await startApp({ ...EVENING, ...(port ? { PORT: port } : {}) }, services);
    await visit(driver, app.url);
  };

  beforeAll(async () => {
    driver = await openBrowser(profile.path);
    me = hands(driver);
  });
  afterAll(async () => {
    await driver.quit();
    await app.stop();
    profile.remove();
  });

  it("shows all three side by side, with their record here, and gives a verdict with three reasons", async () => {
    await open("tern:fine,larch:fine,quartz:fine");
    await me.see("Go, from");
    // What is told before the services have answered gives way to what they said, and closes what was open.
    await driver.wait(async () => !/Provisional/.test(await textOf(driver, "main")), WAIT_MS, "the last word");
    const records = By.xpath("//summary[contains(., 'How reliable they were here')]");
    await driver.wait(async () => (await driver.findElements(records)).length > 0, WAIT_MS, "records of the forecasts");
    await driver.findElement(records).click();
    await me.see("mean squared error of the odds");
    const said = await textOf(driver, By.xpath("//details[summary[contains(., 'How reliable')]]"));
    expect(said).toMatch(/Quartz quick look, simulated: [^·]+, \d+ hours scored, (\d+ % better|no better) than a coin/);
    expect(await row("Larch valley ensemble")).toMatch(/issued Fri 13:00, 29 h old/);
    const reasons = await driver.findElements(By.css("ol[aria-label='What decides it'] li"));
    expect(reasons).toHaveLength(3);
    const [tern, larch, together] = [await odds("Tern"), await odds("Larch"), await odds("together")];
    together.slice(0, 8).forEach((p, i) => expect(p > larch[i]! && p < tern[i]!).toBe(true));
  });

  it("survives one that is down, one that hangs and one that talks nonsense, and says so", async () => {
    await app.stop();
    await open("tern:nonsense,larch:hang,quartz:down", new URL(app.url).port);
    await me.see("Go, from"); // at once, from the last good copies
    await me.see("refused (503)");
    await me.see("no answer within 3 s, asked three times");
    expect(await row("Quartz quick look")).toMatch(/last good copy, issued Sat \d\d:00/);
    await me.press("3 left out");
    await me.see("humidity: ");
    await me.see("values are impossible (180)");
    await me.see("3 hours missing in between");
    await driver.actions().sendKeys("\uE00C").perform();
  });

  it("takes a forecast typed in, refuses a wrong line beside the box and keeps what was typed", async () => {
    await driver.findElement(By.xpath("//summary[contains(., 'A forecast of your own')]")).click();
    await me.fill("Hours, cloud, gusts", "18-23 20\nclear later");
    await me.press("Use these lines");
    await me.see("Line 2, “clear later”");
    expect(await (await me.box("Hours, cloud, gusts")).getAttribute("value")).toContain("18-23 20");
    await me.fill("Hours, cloud, gusts", "18-23 5\n23-8 95 20");
    await me.press("Use these lines");
    await me.see("14 hours taken.");
    await driver.wait(async () => (await driver.findElements(By.xpath("//th[contains(., 'Typed in by hand')]"))).length > 0, WAIT_MS); // prettier-ignore
    expect((await odds("Typed in by hand")).slice(-3)).toEqual([5, 5, 5]);
  });

  it("reads a forecast from a file, says what it leaves out, and names a file that is none", async () => {
    const file = join(profile.path, "mast.json");
    const time = [20, 21, 22].map((h) => `2026-12-05T${h}:00:00Z`);
    writeFileSync(
      file,
      JSON.stringify({
        format: "zenithar-forecast",
        version: 1,
        source: { id: "mast", name: "<b>Mast</b> on the hill" },
        place: { latitude: 43.62, longitude: 1.93 },
        issued: "2026-12-05T15:00:00Z",
        units: { low_type_cloud_area_fraction: "%", air_temperature: "furlong" },
        time,
        low_type_cloud_area_fraction: [10, 10, 10],
        air_temperature: [3, 2, 1],
      }),
    );
    const input = await driver.findElement(By.css("input[type=file][aria-label='Forecast file']"));
    await input.sendKeys(file);
    await me.see("unit “furlong” is not known here");
    await me.see("<b>Mast</b> on the hill"); // as text, never as markup
    const bad = join(profile.path, "page.json");
    writeFileSync(bad, "<html></html>");
    await input.sendKeys(bad);
    await me.see("page.json: the answer is no forecast");
  });

  it("lets what one sees outweigh everything, and remembers it", async () => {
    await me.press("It is cloudy");
    await me.see("Written down: cloudy at 17:40.");
    await me.see("You looked up at 17:40: cloudy.");
    const [first] = await odds("together");
    expect(first).toBeLessThan(40); // the typed forecast said 95 for it
    await driver.navigate().refresh();
    await me.see("You looked up at 17:40: cloudy.");
    await me.press("It is clear");
    await me.see("You looked up at 17:40: clear.");
    expect((await odds("together"))[0]).toBeGreaterThan(80);
  });

  it("stays in when the wish is larger than the night, and says what would change it", async () => {
    // Tomorrow: tonight was begun by the look, and with the kit outside nobody is sent in.
    await visit(driver, `${app.url}/?night=2026-12-06`);
    await me.see("Minimum hours");
    await me.fill("Minimum hours", "11");
    await driver.findElement(By.css("h1")).click();
    await me.see("Stay in tonight.");
    await me.see("would change it");
    await me.fill("Minimum hours", "0");
    await driver.findElement(By.css("h1")).click();
    await me.see("From 0.25 to 12 h");
  });
});
