import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeStage, newProfile, openStage, type Stage, textOf, visit, WAIT_MS } from "./browser";
import { lightFrame, starPixels } from "./star-frame";

/** The folder of the camera's program: a directory of the origin's private file system, which has the same handles. */
describe("the watched folder", () => {
  const profile = newProfile();
  let { app, driver, me } = {} as Stage;
  beforeAll(async () => {
    ({ app, driver, me } = await openStage(profile.path));
    await driver.sendDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", {
      source:
        "globalThis.showDirectoryPicker = async () => (await navigator.storage.getDirectory()).getDirectoryHandle('subs', { create: true });",
    });
    await visit(driver, app.url);
    await me.see("Go, from");
  });
  afterAll(() => closeStage({ app, driver }, profile));

  /** Writes a file into the folder, as the camera's program does, into a folder of the object's name. */
  const land = (name: string, bytes: Buffer) =>
    driver.executeAsyncScript(
      `const [name, text, done] = arguments;
       (async () => {
         const root = await navigator.storage.getDirectory();
         const subs = await root.getDirectoryHandle("subs", { create: true });
         const folder = await subs.getDirectoryHandle("Light", { create: true });
         const file = await (await folder.getFileHandle(name, { create: true })).createWritable();
         await file.write(Uint8Array.from(atob(text), (c) => c.charCodeAt(0)));
         await file.close();
       })().then(done, (e) => done(String(e)));`,
      name,
      bytes.toString("base64"),
    );
  const side = 260;
  const at = (i: number) => new Date(Date.UTC(2026, 11, 5, 19) + i * 309_000).toISOString().slice(0, 19);
  const sub = (i: number, sigma: number) => lightFrame(at(i), side, starPixels(side, sigma, i + 1));
  const watched = () => textOf(driver, "section[aria-label='Watched folder']");
  const untilSaid = (words: string) =>
    driver
      .wait(async () => (await watched().catch(() => "")).includes(words), WAIT_MS)
      .catch(async () => expect(await watched()).toContain(words));

  it("adds every sub as it lands, measured, leaves what lay there, and says which one stands out", async () => {
    await land("old.fits", sub(40, 1.6));
    await visit(driver, `${app.url}/log`);
    await me.see("Watch the folder that the camera’s program writes into");
    await me.press("Watch a folder");
    await untilSaid("Watching “subs”: 1 file in it, 0 added since");
    for (let i = 0; i < 11; i++) await land(`m${i}.fits`, sub(i, 1.6 + 0.02 * (i % 4)));
    await untilSaid("12 files in it, 11 added since");
    const last = () => textOf(driver, "section[aria-label='The last sub']");
    await driver.wait(async () => (await last().catch(() => "")).includes("number 11"), WAIT_MS, "the last of eleven");
    // σ 1.62 px and the pixel's own width, at 1.99″ a pixel: 2.3548 √(1.62² + 1/12) 1.99 = 7.7″.
    expect(await last()).toMatch(/FWHM\n7\.[5-9]″ \(usual 7\.[678]″\)/);
    expect(await last()).toContain("Stars\n36 (usual 36)");
    expect(await last()).not.toContain("stands out");
    await land("m11.fits", sub(11, 3.2));
    await me.see("It stands out: wide");
    await me.see("Looks like bad seeing");
  });

  it("goes on by itself after a reload, and takes what landed meanwhile; another tab says that one is enough", async () => {
    await visit(driver, `${app.url}/kit`);
    await me.see("Places");
    await land("m12.fits", sub(12, 1.6));
    await visit(driver, `${app.url}/log`);
    await untilSaid("Watching “subs”: 14 files in it");
    await me.see("number 13 of its like tonight");
    const [first] = await driver.getAllWindowHandles();
    await driver.switchTo().newWindow("tab");
    await visit(driver, `${app.url}/log`);
    await me.press("Watch “subs” again");
    await untilSaid("Another tab watches “subs” already");
    await driver.close();
    await driver.switchTo().window(first!);
  });

  it("shows the last sub beside the mount, where what one presses is 56 px high", async () => {
    await visit(driver, `${app.url}/nights/live`);
    await me.see("The last sub");
    await untilSaid("Watching “subs”");
    await land("m13.fits", sub(13, 1.6));
    await me.see("number 14 of its like tonight");
    const small = await driver.executeScript<string[]>(
      "return [...document.querySelectorAll('main :is(button, a, select, summary)')].filter((b) => b.checkVisibility() && b.getBoundingClientRect().height < 56 && b.textContent !== 'Understood').map((b) => b.outerHTML)",
    );
    expect(small).toEqual([]);
  });

  it("says that the folder is gone, takes what landed once it is back, and stops when asked", async () => {
    await driver.executeAsyncScript(
      "const done = arguments[0]; navigator.storage.getDirectory().then((root) => root.removeEntry('subs', { recursive: true })).then(done, (e) => done(String(e)))",
    );
    await untilSaid("“subs” is not there");
    await land("m14.fits", sub(14, 1.6));
    await untilSaid("Watching “subs”");
    await me.see("number 15 of its like tonight");
    await me.press("Stop watching");
    await untilSaid("“subs” is not being watched.");
    await visit(driver, `${app.url}/log`);
    await untilSaid("“subs” is not being watched.");
  });
});
