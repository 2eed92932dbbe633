import { writeFileSync } from "node:fs";
import { By } from "selenium-webdriver";
import { hands, newProfile, openBrowser, startApp } from "./browser";
const app = await startApp();
const profile = newProfile();
const driver = await openBrowser(profile.path, { width: 1280, height: 900 });
const me = hands(driver);
const shot = async (n: string) => writeFileSync(`/tmp/${n}.png`, await driver.takeScreenshot(), "base64");
try {
  await driver.get(`${app.url}/projects/project-loop/frame`);
  await me.see("Whole frame");
  await driver.sleep(1500);
  await me.press("Seams"); await driver.sleep(500);
  const first = await driver.findElement(By.css("[title='Show it on the chart']"));
  await first.click(); await driver.sleep(800);
  await shot("d1");
} finally { await driver.quit(); await app.stop(); profile.remove(); }
