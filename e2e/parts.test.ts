import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { By } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeStage, newProfile, openStage, type Stage, textOf, visit, WAIT_MS } from "./browser";

/** One's own part in a project, what a friend's file may change of it, and frames that have hours. */

interface Stored {
  readonly id: string;
  readonly kind: string;
  readonly rev: string;
  readonly author: string;
  readonly seen: Readonly<Record<string, string>>;
  readonly data: Readonly<Record<string, unknown>>;
}
const demo = JSON.parse(readFileSync("app/data/demo.json", "utf8")) as { readonly records: readonly Stored[] };

describe("my part and my friends'", () => {
  const profile = newProfile();
  let { app, driver, me } = {} as Stage;
  beforeAll(async () => {
    ({ app, driver, me } = await openStage(profile.path));
  });
  afterAll(() => closeStage({ app, driver }, profile));
  const at = (path: string) => visit(driver, `${app.url}${path}`);
  const main = () => textOf(driver, "main");
  const until = (is: () => Promise<boolean>, complaint: string) => driver.wait(is, WAIT_MS, complaint);
  const drop = async (label: string, name: string, text: string) => {
    const path = join(profile.path, name);
    writeFileSync(path, text);
    await driver.findElement(By.css(`input[aria-label="${label}"]`)).sendKeys(path);
  };

  it("takes a friend's file with everything: nothing of mine changes without my yes, field by field", async () => {
    const changed = (record: Stored, i: number): Stored | null => {
      const change: Readonly<Record<string, unknown>> | undefined = {
        "place-garden": { latitudeDeg: 54.31, name: "Garden, moved by Wren" },
        "rig-refractor": { focalLengthMm: 200 },
        "project-shell": { name: "Sh2-216, Wren's way" },
        "part-project-shell-member-ines": { placeId: "place-barn", rigId: "rig-lens" },
        "frame-shell": { raDeg: 71.5 },
        settings: { memberId: "member-wren", placeId: "place-barn", rigId: "rig-lens" },
      }[record.id];
      if (!change) return null;
      const rev = `0mx9000${i.toString(36).padStart(2, "0")}.0000.wrens`;
      return { ...record, rev, author: "member-wren", seen: { ...record.seen, wrens: rev }, data: { ...record.data, ...change } }; // prettier-ignore
    };
    const records = demo.records.map((r, i) => changed(r, i) ?? r);
    await at("/kit/data");
    await me.see("Everything stays in this browser");
    await drop("Import a file", "wren-everything.zenithar.json", JSON.stringify({ ...demo, records }));
    await me.see("It would change what you have");
    // The file of somebody else, by its settings: mine is not even asked about.
    const boxes = () =>
      driver.executeScript<string[]>(
        "return [...document.querySelectorAll('fieldset input[type=checkbox]')].map((b) => `${b.checked ? 'yes' : 'no'} ${b.parentElement.textContent}`)",
      );
    expect(new Set(await boxes())).toEqual(
      new Set([
        "no Focal length: 480 mm → 200 mm",
        "no Latitude: 43.62° → 54.31°",
        "no Name: Garden behind the mill → Garden, moved by Wren",
        "no Place: Garden behind the mill → Wren’s barn",
        "no Right ascension of the centre: 70.84° → 71.5°",
        "no Rig: Garden refractor → Barn telephoto",
        "yes Name: Sh2-216, three gardens → Sh2-216, Wren's way",
      ]),
    );
    await me.press("Merge");
    await me.gone("It would change what you have");
    await at("/projects/project-shell/frame");
    await me.see("Sh2-216, Wren's way");
    expect(await main()).toContain("Garden refractor · Garden behind the mill");
    expect(await me.value("Right ascension")).toBe("04h 43m 21.6s");
    await at("/kit/places/place-garden");
    expect(await me.value("Latitude")).toBe("43.62");
    await at("/kit/rigs/rig-refractor");
    expect(await me.value("Focal length")).toBe("480");
    // Said no once: the same file asks nothing more.
    await at("/kit/data");
    await me.see("Everything stays in this browser");
    await drop("Import a file", "wren-everything-2.zenithar.json", JSON.stringify({ ...demo, records }));
    await me.see("What wren-everything-2.zenithar.json brings");
    expect(await main()).not.toContain("It would change what you have");
  });

  it("changes my part alone, and plans only the channels I promise", async () => {
    await at("/projects/project-shell/plan");
    await me.see("others have promised");
    expect(await main()).toContain("Ha has hours left that others have promised");
    await me.press("Change");
    const ha = By.xpath("//label[normalize-space(.)='Ha']/input");
    await driver.wait(async () => (await driver.findElements(ha)).length > 0, WAIT_MS, "a box for Ha");
    await driver.findElement(ha).click();
    await me.press("Save");
    await until(async () => !(await main()).includes("others have promised"), "Ha should be planned too");
    await at("/projects/project-shell/crew");
    await me.see("Who takes part");
    const rows = (await main()).split("\n");
    expect(rows).toContain("Terrace refractor, Tomasz’s terrace");
    expect(rows).toContain("all channels");
  });

  it("asks what becomes of hours when their frame is moved: they count, stay with the old frame, or nothing moves", async () => {
    const FRAME = "/projects/project-shell/frame";
    const hours = async () => {
      await at("/projects/project-shell/log");
      await me.see("Collected so far");
      return /Collected so far[\s\S]*/.exec(await main())![0];
    };
    const before = await hours();
    await at(FRAME);
    await me.fill("Position angle", "2");
    await (await me.box("Position angle")).sendKeys("\uE007");
    await me.see("were taken with this frame as it stood");
    expect(await main()).toContain("P1: turned by 2.0°");
    // It waits through a reload, and nothing is kept before something is said.
    await driver.navigate().refresh();
    await me.see("were taken with this frame as it stood");
    expect(await me.value("Position angle")).toBe("2.0");
    await me.press("Move it, hours still count");
    await me.see("its hours still count");
    await me.gone("were taken with this frame as it stood");
    expect(await me.value("Position angle")).toBe("2.0");
    expect(await hours()).toBe(before);
    // Moved on by far: that cannot be said any more, and the hours stay with the old frame.
    await at(FRAME);
    await me.fill("Declination", "+49 00 00");
    await (await me.box("Declination")).sendKeys("\uE007");
    await me.see("the old exposures do not fill it any more");
    expect(await main()).not.toContain("Move it, hours still count");
    await me.press("Put it back");
    await me.gone("were taken with this frame as it stood");
    expect(await me.value("Declination")).toContain("+46° 42′");
    await me.fill("Declination", "+49 00 00");
    await (await me.box("Declination")).sendKeys("\uE007");
    await me.press("Keep as a new frame");
    await me.see("the hours stay with the old one");
    expect(await me.value("Declination")).toContain("+49° 00′");
    expect(await hours()).not.toBe(before);
    await at(FRAME);
    await me.see("This one is planned and shot.");
    const old = await driver.executeScript<string>(
      "return [...document.querySelectorAll('option')].find((o) => o.value.startsWith('frame-') && !o.textContent.includes('shot'))?.textContent",
    );
    await me.choose("Frame", old);
    await me.press("Shoot this one");
    await me.see("This one is planned and shot.");
    expect(await hours()).toBe(before);
  });

  it("cuts the picture to a shape and says its size on paper; any object can be asked to be inside by its name; any night is one press away", async () => {
    await at("/projects/project-loop/frame");
    await me.see("in print at 300 dpi");
    await me.press("Crop it");
    await me.choose("Shape", "1:1");
    await me.see("as you cut it");
    const text = await main();
    const [, w, h] = /([\d,]+) × ([\d,]+) px/.exec(text)!;
    expect(w).toBe(h);
    const side = Number(w!.replaceAll(",", ""));
    expect(text).toContain(`${((side / 300) * 2.54).toFixed(1)} × ${((side / 300) * 2.54).toFixed(1)} cm in print`);
    await me.press("Cover");
    await me.fill("Another object, by name", "NGC 6940");
    await me.press("Add");
    await until(async () => (await me.value("Another object, by name")) === "", "it should be added");
    expect(await main()).toContain("NGC 6940");
    await driver.findElement(By.css("button[aria-label^='Another night']")).click();
    await me.press("30 nights on");
    await until(async () => (await driver.getCurrentUrl()).includes("night=2027-01-04"), "thirty nights on");
    await me.press("Back to tonight");
    await until(async () => (await driver.getCurrentUrl()).includes("night=2026-12-05"), "back to tonight");
  });
});
