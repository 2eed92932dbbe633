import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { By } from "selenium-webdriver";
import { closeStage, newProfile, openStage, type Stage, textOf, visit, WAIT_MS } from "./browser";

/** A night is played before it comes; at last its frames go the way of real ones. */
describe("the rehearsal", () => {
  const profile = newProfile();
  let { app, driver, me } = {} as Stage;
  beforeAll(async () => {
    ({ app, driver, me } = await openStage(profile.path));
    await visit(driver, app.url);
    await me.see("Go, from");
  });
  afterAll(() => closeStage({ app, driver }, profile));

  const keptMin = async (): Promise<number> => {
    const [, hours, minutes] = /^(?:(\d+) h )?(\d+)(?: min)? kept/m.exec(await me.text()) ?? [];
    return 60 * Number(hours ?? 0) + Number(minutes);
  };

  it("plays a prepared night to its decision, and tells what each way brought; undone, it is decided anew; a reload loses nothing", async () => {
    await visit(driver, `${app.url}/nights/rehearsal`);
    await me.press("Gap at ten");
    await me.see("simulated sky and kit");
    await me.press("To the next decision");
    await me.see("The sky has closed.");
    await me.see("The app’s advice:");
    await me.press("Pack up");
    await me.press("To the end");
    await me.see("The night is over.");
    await me.see("A gap is no end");
    const packed = await keptMin();
    await me.see("The best, knowing the night");
    await driver.wait(async () => (await textOf(driver, "section[aria-label='Decision by decision']")).includes("22:07"), WAIT_MS); // prettier-ignore
    const row = await textOf(driver, "section[aria-label='Decision by decision'] li");
    expect(row).toMatch(/Pack up: .* kept/);
    expect(row).toMatch(/Darks meanwhile: .* kept/);
    await me.press("Undo the last decision");
    await me.see("To the next decision");
    await me.press("To the next decision");
    await me.press("Darks meanwhile");
    await me.see("Undo the last decision");
    await driver.navigate().refresh();
    await me.see("Undo the last decision");
    await me.press("To the end");
    await me.see("The night is over.");
    expect(await keptMin()).toBeGreaterThan(packed + 30);
  });

  it("runs by its clock as fast as one likes, and can be stopped", async () => {
    await visit(driver, `${app.url}/nights/rehearsal?of=flip`);
    await me.choose("Speed", "1000 times");
    await me.press("Play");
    await me.see("Pause");
    await me.press("To the next decision");
    await me.see("The target is at the meridian.");
    await me.press("Flip now");
    await me.press("Play");
    await me.press("Pause");
    const stood = await textOf(driver, "main h1");
    await driver.sleep(400);
    expect(await textOf(driver, "main h1")).toBe(stood);
  });

  const toGo = async () => {
    await visit(driver, `${app.url}/`);
    const found = await driver.wait(
      async () => /Ha · (\d+) h(?: (\d+))? to go/.exec(await me.text().catch(() => "")),
      WAIT_MS,
    );
    return 60 * Number(found![1]) + Number(found![2] ?? 0);
  };

  /** Minutes of Ha that the record says the picture is made from. */
  const madeHa = async () => {
    await visit(driver, `${app.url}/projects/project-loop/record`);
    const found = await driver.wait(
      async () => /\(Ha (\d+) h (\d+), OIII/.exec(await me.text().catch(() => "")),
      WAIT_MS,
    );
    return 60 * Number(found![1]) + Number(found![2]);
  };

  it("goes the whole way: frames land, are measured, booked, culled, counted in plan and record, and go out again", async () => {
    const [before, beforeHa] = [await toGo(), await madeHa()];
    await visit(driver, `${app.url}/nights`);
    await me.press("Rehearse this night");
    await me.see("sky 1 of this forecast");
    await visit(driver, `${app.url}/nights/rehearsal?of=sheet&sky=2`);
    for (;;) {
      if ((await textOf(driver, "main h1")) === "The night is over.") break;
      const due = await textOf(driver, "section[aria-label='To be decided']").catch(() => "");
      if (due.includes("The sky has closed.")) await me.press("Pack up");
      else if (due !== "") await driver.findElement(By.css("section[aria-label='To be decided'] button")).click();
      else await me.press("To the "); // next decision, or end
      await driver.sleep(200);
    }
    const told = await me.text();
    const [kept, taken] = [...told.matchAll(/: (\d+) of (\d+) subs kept/g)].reduce(([k, t], m) => [k! + Number(m[1]), t! + Number(m[2])], [0, 0] as number[]); // prettier-ignore
    expect(kept).toBeGreaterThan(20);
    // The morning after: what is dated tonight lies behind.
    await driver.executeScript("document.documentElement.dataset.now = String(Date.parse('2026-12-06T09:00:00Z'))");
    await me.press("Let them land in a watched folder");
    await driver.wait(async () => (await me.text()).includes(`${taken} frames landed.`), 6 * WAIT_MS, "frames landed");
    const log = By.xpath("//nav//a[normalize-space(.)='Log']");
    await driver.findElement(log).click();
    await driver.wait(async () => (await me.text()).includes(`${taken} entries of a rehearsal are in the log`), 4 * WAIT_MS, "all booked"); // prettier-ignore
    await me.see("simulated, and counted like any other");
    // What the stand-in exposed, sub for sub: the refractor's are those of the Veil.
    const [, refractor] = /Garden refractor: \d+ of (\d+) subs kept/.exec(told) ?? [];
    expect(await me.text()).toContain(`Last night: ${refractor} subs, `);
    await visit(driver, `${app.url}/log/subs?night=2026-12-05`);
    await me.see("Subs of Saturday 5 December 2026");
    const groups = [...(await me.text()).matchAll(/: (\d+) taken, all kept; stars (\d+\.\d)″ wide/g)];
    expect(groups.reduce((sum, g) => sum + Number(g[1]), 0)).toBe(taken);
    // Seeing of 1.7″ to 2.2″ at the zenith, guiding, focus and the pixels make a few arcsec of it.
    for (const g of groups) expect(Number(g[2])).toBeGreaterThan(2.5);
    for (const g of groups) expect(Number(g[2])).toBeLessThan(6.5);
    await visit(driver, `${app.url}/projects/project-loop/record`);
    await me.see(`${refractor} subs here are simulated`);
    const hadHa = await madeHa();
    expect(hadHa - beforeHa).toBe(5 * Number(refractor));
    // The plan follows by what was exposed: 5 min a sub.
    expect(before - (await toGo())).toBe(5 * Number(refractor));
    await visit(driver, `${app.url}/nights`);
    await me.see("Calibration");
    // A thin cloud that nobody saw: what was open then goes, and the record counts it no more.
    await visit(driver, `${app.url}/log/subs?night=2026-12-05&project=project-loop`);
    await me.see("Subs of Saturday 5 December 2026");
    await me.fill("From", "18:30");
    await me.fill("To", "18:50");
    await me.press("Choose these");
    await me.see(" chosen: dropping");
    const dropped = Number(/(\d+) subs? chosen/.exec(await me.text())?.[1]);
    await me.press(`Drop ${dropped}`);
    await me.see(`${dropped} subs dropped: cloud`);
    expect(hadHa - (await madeHa())).toBe(5 * dropped);
    await visit(driver, `${app.url}/log`);
    await me.press("Take the simulated out");
    await me.see("Simulated entries taken out.");
    expect(await toGo()).toBe(before);
  });
});
