import { writeFileSync } from "node:fs";
import { hands, newProfile, openBrowser, startApp } from "./browser";
const app = await startApp();
const profile = newProfile();
const driver = await openBrowser(profile.path, { width: 1280, height: 1500 });
const me = hands(driver);
const shot = async (n: string) => writeFileSync(`/tmp/${n}.png`, await driver.takeScreenshot(), "base64");
try {
  await driver.get(`${app.url}/`);
  await me.see("Where the night goes");
  await driver.sleep(2500);
  await shot("c1");
  await driver.executeScript("window.scrollTo(0, 1300)"); await driver.sleep(400);
  await shot("c2");
  await driver.get(`${app.url}/kit/places/place-garden`); await driver.sleep(1500);
  const box = await me.box("Points");
  await driver.executeScript("arguments[0].scrollIntoView({block:'center'})", box);
  await box.clear(); await box.sendKeys("0 14\n40 12\n361 12\n30 abc\n50 NaN\n90 95\n20 5\n200 10");
  await driver.sleep(600);
  await shot("c3");
} finally { await driver.quit(); await app.stop(); profile.remove(); }
