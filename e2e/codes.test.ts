import { writeFileSync } from "node:fs";
import { join } from "node:path";
import jsQR from "jsqr";
import { PNG } from "pngjs";
import { By } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, newProfile, openBrowser, type RunningApp, sharedApp, textOf, visit, WAIT_MS } from "./browser";

const CAMERA = { width: 640, height: 480 };

/** A film of pictures for the browser's own stand-in for a camera: grey, two a second, round and round (YUV4MPEG2). */
function filmOf(pictures: readonly PNG[]): Buffer {
  const { width, height } = CAMERA;
  const colourless = Buffer.alloc((width * height) / 2, 128);
  const frames = pictures.map(({ width: w, height: h, data }) => {
    const grey = Buffer.alloc(width * height, 40); // a dark night around the screen
    const scale = Math.max(w, h) / (height - 40);
    for (let y = 0; y < Math.floor(h / scale); y++)
      for (let x = 0; x < Math.floor(w / scale); x++) {
        const at = 4 * (Math.floor(y * scale) * w + Math.floor(x * scale));
        const light = 0.2126 * data[at]! + 0.7152 * data[at + 1]! + 0.0722 * data[at + 2]!;
        grey[(y + 20) * width + x + 90] = light;
      }
    return Buffer.concat([Buffer.from("FRAME\n"), grey, colourless]);
  });
  return Buffer.concat([Buffer.from(`YUV4MPEG2 W${width} H${height} F2:1 Ip A1:1 C420jpeg\n`), ...frames]);
}

/** Two devices in one night: what is pressed on the phone goes to the laptop from screen to camera. */
describe("codes from screen to camera", () => {
  const profiles = [newProfile(), newProfile()] as const;
  let app: RunningApp;
  let phone: chrome.Driver;
  let laptop: chrome.Driver | null = null;
  const pictures = new Map<string, PNG>();
  beforeAll(async () => {
    app = sharedApp();
    phone = await openBrowser(profiles[0].path, { width: 390, height: 844 });
  });
  afterAll(async () => {
    await phone.quit();
    await laptop?.quit();
    await app.stop();
    profiles.forEach((p) => p.remove());
  });

  it("are shown in red, and an independent reader reads every one of them off the screen", async () => {
    const me = hands(phone);
    await visit(phone, app.url);
    await me.see("Go, from");
    await visit(phone, `${app.url}/nights/live`);
    await me.see("Next:");
    await me.press("Begun");
    await me.see("Take it back");
    await me.press("Trouble");
    await me.fill("What went wrong", "Dew on the guide scope");
    await me.press("Write down");
    await me.see("Written down tonight: 2 presses");
    await me.press("With the other device");
    await me.press("Show a code");
    await me.see("hold its camera");
    expect(await phone.executeScript("return document.documentElement.dataset.theme")).toBe("ember");
    const shown = await phone.findElement(By.css("figure svg"));
    await phone.executeScript("arguments[0].scrollIntoView({ block: 'start' })", shown);
    let count = 1;
    await phone.wait(async () => {
      const words = (await shown.getAttribute("aria-label")) ?? "";
      const [, all] = /^Code \d+ of (\d+)$/.exec(words) ?? [];
      count = Number(all);
      const picture = PNG.sync.read(Buffer.from(await shown.takeScreenshot(), "base64"));
      const code = jsQR(Uint8ClampedArray.from(picture.data), picture.width, picture.height);
      if (code) pictures.set(code.data, picture);
      return pictures.size === count;
    }, 3 * WAIT_MS);
    expect([...pictures.keys()].every((code) => code.startsWith("ZN1."))).toBe(true);
  });

  it("are read by the other device's camera; what they bring is said, taken over by one press, and comes once", async () => {
    const film = join(profiles[1].path, "film.y4m");
    writeFileSync(film, filmOf([...pictures.values()]));
    laptop = await openBrowser(profiles[1].path, undefined, [
      "--use-fake-ui-for-media-stream",
      "--use-fake-device-for-media-stream",
      `--use-file-for-fake-video-capture=${film}`,
    ]);
    const me = hands(laptop);
    await visit(laptop, app.url);
    await me.see("Go, from");
    await visit(laptop, `${app.url}/nights/live`);
    await me.see("Next:");
    const read = async () => {
      await me.press("Read a code");
      await me.see("Read: 2 presses");
    };
    await me.press("With the other device");
    await read();
    await me.press("Take it over");
    await me.see("Written down tonight: 2 presses");
    await me.press("Written down tonight");
    await me.see("Trouble: Dew on the guide scope");
    await read();
    await me.see("all of it is here already");
    await me.press("Good");
    expect(await textOf(laptop, "main")).toContain("Written down tonight: 2 presses");
  });
});
