import { writeFileSync } from "node:fs";
import { hands, newProfile, openBrowser, startApp } from "./browser";
const app = await startApp();
const profile = newProfile();
const driver = await openBrowser(profile.path, { width: 1280, height: 1400 });
const me = hands(driver);
const shot = async (n: string) => writeFileSync(`/tmp/${n}.png`, await driver.takeScreenshot(), "base64");
try {
  await driver.get(`${app.url}/projects/project-loop/frame`);
  await me.see("Whole frame");
  await driver.sleep(1500);
  await me.press("Seams"); await driver.sleep(500);
  await me.press("Shift and turn"); await me.see("Trouble"); await driver.sleep(600);
  await shot("b1");
  await me.press("Compare"); await driver.sleep(500); await shot("b2");
  await driver.get(`${app.url}/targets/NGC%20253`); await driver.sleep(2500); await shot("b3");
  await driver.get(`${app.url}/kit/places/place-garden`); await driver.sleep(1500); await shot("b4");
} finally { await driver.quit(); await app.stop(); profile.remove(); }
