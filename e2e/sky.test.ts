import { decode } from "fast-png";
import { By, Key, until, type WebElement } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import {
  hands,
  newProfile,
  openBrowser,
  startApp,
  textOf,
  untilOffline,
  visit,
  WAIT_MS,
  type RunningApp,
} from "./browser";

const FRAME = "/projects/project-loop/frame";
const chartOf = (driver: chrome.Driver): Promise<WebElement> => driver.findElement(By.css("main canvas"));
/** Mean light of the chart, 0 to 255. */
const lightOf = (driver: chrome.Driver): Promise<number> =>
  driver.executeScript<number>(`
    const canvas = document.querySelector("main canvas");
    const { data } = canvas.getContext("2d").getImageData(0, 0, canvas.width, canvas.height);
    let sum = 0;
    for (let i = 0; i < data.length; i += 4) sum += data[i] + data[i + 1] + data[i + 2];
    return sum / (data.length / 4) / 3;`);
/** Waits until the chart's light is what it should be. */
const untilLight = (driver: chrome.Driver, isFine: (light: number) => boolean, complaint: string) =>
  driver.wait(async () => isFine(await lightOf(driver)), WAIT_MS, complaint);

const VEIL = "//img[starts-with(@alt, 'The whole Veil')]";
/** The small picture of the Veil's mosaic on Projects: side in px, colours row by row. */
async function smallVeil(
  driver: chrome.Driver,
  url: string,
): Promise<{ side: number; at: (x: number, y: number) => number[] }> {
  await visit(driver, `${url}/projects`);
  const img = await driver.wait(until.elementLocated(By.xpath(VEIL)), WAIT_MS);
  const [side, data] = await driver.executeAsyncScript<[number, number[]]>(
    `const [img, done] = arguments;
     img.decode().then(() => {
       const canvas = document.createElement("canvas");
       canvas.width = canvas.height = img.naturalWidth;
       const ctx = canvas.getContext("2d");
       ctx.drawImage(img, 0, 0);
       done([img.naturalWidth, [...ctx.getImageData(0, 0, img.naturalWidth, img.naturalWidth).data]]);
     });`,
    img,
  );
  return { side, at: (x, y) => data.slice(4 * (Math.round(y) * side + Math.round(x)), 4 * (Math.round(y) * side + Math.round(x)) + 3) }; // prettier-ignore
}

/** A foreign survey of another make (e2e/fixtures): galactic, JPEG tiles of 256 pixels, only five of them and the picture of all the sky. */
describe("a survey that the operator set up", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  beforeAll(async () => {
    app = await startApp({
      ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z",
      ZENITHAR_OFFLINE: "off",
      ZENITHAR_HIPS: new URL("fixtures/galactic-survey", import.meta.url).pathname,
    });
    driver = await openBrowser(profile.path);
  });
  afterAll(async () => {
    await driver.quit();
    await app.stop();
    profile.remove();
  });

  it("lies on the chart where it lies on the sky: red north of +31°, green east of 20h 52m, by the position told under the pointer", async () => {
    const me = hands(driver);
    await driver.get(app.url + FRAME);
    await me.see("Quarters of the sky");
    await me.choose("Picture of the sky", "Quarters of the sky");
    await me.see("galactic tiles of orders 3 to 3");
    await me.see("Test pattern, nobody's");
    await untilLight(driver, (light) => light > 60, "the pattern should lie on the chart");
    await driver.wait(async () => !(await me.text()).includes("on their way"), WAIT_MS, "the tiles should have come");
    const chart = await chartOf(driver);
    const { width, height } = await chart.getRect();
    let [compared, reds, greens] = [0, 0, 0];
    for (let i = 0; i < 30; i++) {
      const [x, y] = [Math.round(width * (0.06 + ((i * 0.381966) % 0.88))), Math.round(height * (0.12 + ((i * 0.618034) % 0.76)))]; // prettier-ignore
      await driver.actions().move({ origin: chart, x: Math.round(x - width / 2), y: Math.round(y - height / 2) }).perform(); // prettier-ignore
      const told = (await me.text()).match(/(\d+)h (\d+)m (\d+)s, ([+−])(\d+)° (\d+)′/);
      if (!told) continue; // on an object, whose name is told instead
      const ra = 15 * (Number(told[1]) + Number(told[2]) / 60 + Number(told[3]) / 3600);
      const dec = (told[4] === "−" ? -1 : 1) * (Number(told[5]) + Number(told[6]) / 60);
      if (Math.abs(dec - 31) < 0.2 || Math.abs(ra - 313) < 0.2) continue; // on the line
      // Lines and stars of the chart lie above: a point counts where it and four around it are of one colour.
      const around = await driver.executeScript<number[][]>(
        `const canvas = document.querySelector("main canvas"); const k = canvas.width / canvas.clientWidth;
         const at = (dx, dy) => [...canvas.getContext("2d").getImageData((arguments[0] + dx) * k, (arguments[1] + dy) * k, 1, 1).data];
         return [[0, 0], [-6, -4], [6, -4], [-6, 4], [6, 4]].map(([dx, dy]) => at(dx, dy));`,
        x,
        y,
      );
      const sides = new Set(around.map(([red, green]) => `${red! > 128} ${green! > 128}`));
      if (sides.size > 1) continue;
      expect([...sides], `${told[0]}`).toEqual([`${dec > 31} ${ra > 313}`]);
      compared++;
      if (dec > 31) reds++;
      if (ra > 313) greens++;
    }
    expect(compared).toBeGreaterThan(10);
    expect([reds > 2, reds < compared - 2, greens > 2, greens < compared - 2]).toEqual([true, true, true, true]);
  });

  it("is shown red only in Ember, and dark on light by day", async () => {
    const colours = () =>
      driver.executeScript<number[]>(`
        const canvas = document.querySelector("main canvas");
        const { data } = canvas.getContext("2d").getImageData(0, 0, canvas.width, canvas.height);
        const sum = [0, 0, 0];
        for (let i = 0; i < data.length; i++) if (i % 4 < 3) sum[i % 4] += data[i] / (data.length / 4);
        return sum;`);
    await driver.executeScript("document.documentElement.dataset.theme = 'ember'");
    await driver.wait(async () => {
      const [red, green, blue] = await colours();
      return red! > 40 && green! < red! / 4 && blue! < red! / 4;
    }, WAIT_MS, "Ember should be red only"); // prettier-ignore
    await driver.executeScript("document.documentElement.dataset.theme = 'day'");
    await untilLight(driver, (light) => light > 100, "by day the picture should be light");
    await driver.executeScript("document.documentElement.dataset.theme = 'dusk'");
  });

  it("is what small pictures show as well, its quarters where they lie about the frame at 312.9°, +30.75°", async () => {
    const { side, at } = await smallVeil(driver, app.url);
    // Far from the lines between the quarters, outside the mosaic: east is left, north is up.
    const [near, far] = [0.04 * side, 0.96 * side];
    const sides = [[near, near], [far, near], [near, far], [far, far]].map(([x, y]) => at(x!, y!).slice(0, 2).map((c) => c > 100)); // prettier-ignore
    expect(sides).toEqual([[true, true], [true, false], [false, true], [false, false]]); // prettier-ignore
    const img = await driver.findElement(By.xpath(VEIL));
    expect(await img.getAttribute("alt")).toContain("Quarters of the sky, Test pattern, nobody's");
  });
});

describe("the simulated sky", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  let drawn = 0;
  beforeAll(async () => {
    app = await startApp();
    driver = await openBrowser(profile.path);
    me = hands(driver);
    await driver.get(app.url + FRAME);
    await me.see("Picture of the sky");
  });
  afterAll(async () => {
    await driver.quit();
    await app.stop();
    profile.remove();
  });

  it("is a picture of the published form, tile by tile, and says that it is simulated", async () => {
    const tile = await fetch(`${app.url}/services/survey/simulated/Norder5/Dir0/Npix1234.png`);
    const { width, height, channels } = decode(new Uint8Array(await tile.arrayBuffer()));
    expect([tile.headers.get("content-type"), width, height, channels]).toEqual(["image/png", 512, 512, 3]);
    for (const path of [
      "Norder5/Dir0/Npix99999.png",
      "../../healthz",
      "Norder5/Dir0/..%2f..%2fproperties",
      "Norder10/Dir0/Npix1.png",
    ])
      expect((await fetch(`${app.url}/services/survey/simulated/${path}`)).status).not.toBe(200);
  });

  it("lies behind the chart, brighter and stronger by sliders, off and on by P, as it was after a reload", async () => {
    drawn = await lightOf(driver);
    await me.see("Simulated sky");
    await me.choose("Picture of the sky", "Simulated sky");
    await me.see("Simulated: stars and sizes from the catalogues");
    const untilThere = () =>
      driver.wait(async () => !(await me.text()).includes("on their way"), WAIT_MS, "the tiles should have come");
    await untilThere();
    const plain = await lightOf(driver);
    expect(await textOf(driver, "main")).not.toContain("Patches and outlines are drawn");
    const slider = await driver.findElement(By.xpath("//label[contains(., 'Brightness')]/input"));
    for (let i = 0; i < 8; i++) await slider.sendKeys(Key.ARROW_RIGHT);
    await untilLight(driver, (light) => light > plain + 25, "it should be brighter");
    await untilThere();
    const bright = await lightOf(driver);
    await (await driver.findElement(By.css("main h1"))).click();
    await driver.actions().sendKeys("p").perform();
    await untilLight(driver, (light) => Math.abs(light - drawn) < 4, "P should take it off");
    await driver.actions().sendKeys("p").perform();
    await untilLight(driver, (light) => Math.abs(light - bright) < 4, "P should put it back");
    await driver.navigate().refresh();
    await me.see("Simulated: stars and sizes from the catalogues");
    await untilLight(driver, (light) => Math.abs(light - bright) < 4, "it should be as it was");
  });

  it("is drawn small from the catalogue: corners of the mosaic where trigonometry has them, its nebula in the middle, kept by the browser", async () => {
    const { side, at } = await smallVeil(driver, app.url);
    // 4144 × 2822 px of 4.63 µm at 480 mm, two by three, 15 % in common, at 4°: arcminutes about the middle.
    const field = (px: number) => (px * 4.63e-3 * 3437.75) / 480;
    const [w, h] = [field(4144) * 1.85, field(2822) * 2.7];
    const half = Math.hypot(w, h) / 2;
    const [sin, cos] = [Math.sin((4 * Math.PI) / 180), Math.cos((4 * Math.PI) / 180)];
    for (const [x, y] of [[-w / 2, h / 2], [w / 2, h / 2], [-w / 2, -h / 2], [w / 2, -h / 2]] as const) {
      // North up and east left: a turn from north to east goes to the left.
      const [right, up] = [x * cos - y * sin, x * sin + y * cos];
      const px = (arcmin: number) => (arcmin / (1.15 * 2 * half)) * side;
      const [cx, cy] = [side / 2 + px(right), side / 2 - px(up)];
      const around = [-2, -1, 0, 1, 2].flatMap((dx) => [-2, -1, 0, 1, 2].map((dy) => at(cx + dx, cy + dy)));
      expect(around.some(([r, g, b]) => r! > 110 && g! > 70 && b! < g!), `corner at ${cx}, ${cy}`).toBe(true);
    } // prettier-ignore
    const light = (cx: number, cy: number) => {
      let sum = 0;
      for (let dx = -4; dx <= 4; dx++) for (let dy = -4; dy <= 4; dy++) sum += at(cx + dx, cy + dy)[0]!;
      return sum / 81;
    };
    expect(light(0.56 * side, 0.5 * side)).toBeGreaterThan(light(0.08 * side, 0.5 * side) + 8);
    expect(await driver.executeAsyncScript<number>("caches.open('zenithar-small').then((c) => c.keys()).then((k) => arguments[0](k.length))")).toBeGreaterThanOrEqual(1); // prettier-ignore
    await driver.get(app.url + FRAME);
    await me.see("Picture of the sky");
  });

  it("of a field that is kept is there without a network, after the browser was closed", async () => {
    await me.press("Keep this field");
    await me.see("This field is kept:");
    await untilOffline(driver);
    await app.stop();
    await driver.quit();
    driver = await openBrowser(profile.path);
    me = hands(driver);
    await driver.get(app.url + FRAME);
    await me.see("Simulated: stars and sizes from the catalogues");
    await untilLight(driver, (light) => light > drawn + 25, "the kept picture should be there");
    await me.press("Whole frame");
    await driver.wait(async () => !(await me.text()).includes("on their way"), WAIT_MS, "nothing should be missing");
    expect(await me.text()).not.toContain("could not be asked");
  });
});
