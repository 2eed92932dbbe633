import { readFileSync, writeFileSync } from "node:fs";
import { openBrowser, newProfile } from "../e2e/browser";

/** Draws the icons of the installed app from the mark: whole, and with the margin that a mask may take. */
const PUBLIC = new URL("../public/", import.meta.url).pathname;
const mark = readFileSync(`${PUBLIC}mark.svg`, "utf8");
const profile = newProfile();
const driver = await openBrowser(profile.path, { width: 512, height: 512 });
try {
  for (const [name, size, share] of [
    ["icon-192", 192, 1],
    ["icon-512", 512, 1],
    ["icon-512-maskable", 512, 0.72],
  ] as const) {
    const png = await driver.executeAsyncScript<string>(
      `const [mark, size, share, done] = arguments;
       const image = new Image();
       image.onload = () => {
         const canvas = Object.assign(document.createElement("canvas"), { width: size, height: size });
         const pen = canvas.getContext("2d");
         if (share < 1) { pen.fillStyle = "#1c1815"; pen.fillRect(0, 0, size, size); }
         pen.drawImage(image, (size * (1 - share)) / 2, (size * (1 - share)) / 2, size * share, size * share);
         done(canvas.toDataURL("image/png").split(",")[1]);
       };
       image.src = "data:image/svg+xml;base64," + btoa(mark);`,
      mark.replace("<svg ", '<svg width="512" height="512" '),
      size,
      share,
    );
    writeFileSync(`${PUBLIC}${name}.png`, Buffer.from(png, "base64"));
  }
} finally {
  await driver.quit();
  profile.remove();
}
