import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { newProfile, openBrowser, startApp } from "../e2e/browser";

/**
 * Takes pictures of paths given as "path=file.png", for looking: tsx scripts/shot.ts [--size 400x800] [--theme ember] /=a.png …
 * What is to be a ".pdf" is printed on A4.
 */
const args = process.argv.slice(2);
const take = (name: string) => {
  const i = args.indexOf(name);
  return i === -1 ? null : args.splice(i, 2)[1]!;
};
const [width, height] = (take("--size") ?? "1280x800").split("x").map(Number) as [number, number];
const theme = take("--theme") ?? "dusk";
const app = await startApp();
const profile = newProfile();
const driver = await openBrowser(profile.path, { width, height });
try {
  await driver.get(`${app.url}/healthz`);
  await driver.manage().addCookie({ name: "theme", value: theme });
  for (const shot of args) {
    const at = shot.lastIndexOf("=");
    await driver.get(`${app.url}${shot.slice(0, at)}`);
    await driver
      .wait(
        async () =>
          driver.executeScript<boolean>(
            "return [...document.querySelectorAll('main h1, main h2')].some((h) => h.checkVisibility())",
          ),
        15_000,
      )
      .catch(() => undefined);
    await driver.sleep(1500);
    mkdirSync(dirname(shot.slice(at + 1)) || ".", { recursive: true });
    const file = shot.slice(at + 1);
    if (file.endsWith(".pdf")) {
      const { data } = await driver.sendAndGetDevToolsCommand("Page.printToPDF", { paperWidth: 8.27, paperHeight: 11.69 }) as unknown as { data: string }; // prettier-ignore
      writeFileSync(file, data, "base64");
    } else writeFileSync(file, await driver.takeScreenshot(), "base64");
    const logs = await driver.manage().logs().get("browser");
    for (const l of logs) console.log(shot.slice(0, at), l.level.name, l.message.slice(0, 300));
  }
} finally {
  await driver.quit();
  await app.stop();
  profile.remove();
}
