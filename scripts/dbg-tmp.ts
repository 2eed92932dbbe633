import { writeFileSync, mkdirSync } from "node:fs";
import { hands, newProfile, openBrowser, startApp } from "../e2e/browser";
const app = await startApp();
const profile = newProfile();
const driver = await openBrowser(profile.path, { width: 1280, height: 800 });
const me = hands(driver);
mkdirSync("/tmp/s", { recursive: true });
const shot = async (n: string) => writeFileSync(`/tmp/s/${n}.png`, await driver.takeScreenshot(), "base64");
try {
  await driver.get(`${app.url}/log`);
  await me.see("Or in a line");
  await driver.sleep(800);
  await shot("log");
  await driver.get(`${app.url}/log/nights?night=2026-12-04`);
  await me.see("Write down");
  await me.fill("Seeing, FWHM", "2.6");
  await me.fill("Guiding RMS, RA", "0.9");
  await me.fill("Guiding RMS, Dec", "0.5");
  await me.fill("Polar error, azimuth", "4");
  await me.fill("Polar error, altitude", "2");
  await me.fill("Trouble", "stars long in the lower left, tilt");
  await me.fill("What cured it", "a shim of 0.1 mm at the rotator");
  await me.press("Write down");
  await me.see("is written down");
  await driver.sleep(1500);
  await shot("facts");
} finally {
  await driver.quit(); await app.stop(); profile.remove();
}
