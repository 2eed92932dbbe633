import { mkdirSync, writeFileSync } from "node:fs";
import { hands, newProfile, openBrowser, startApp } from "../e2e/browser";

/** Remakes docs/screenshots from the demo on its fixed evening, so that the pictures never go stale. The build must exist. */
const OUT = new URL("../docs/screenshots/", import.meta.url).pathname;
const VIEWS: readonly {
  readonly file: string;
  readonly path: string;
  readonly waitFor: string;
  readonly theme?: string;
  readonly width?: number;
  readonly height?: number;
  /** Choices made before the picture is taken: label and option. */
  readonly choose?: readonly (readonly [label: string, option: string])[];
  /** What is typed, and then pressed one after the other, before the picture is taken. */
  readonly fill?: readonly [label: string, value: string];
  readonly press?: readonly string[];
}[] = [
  { file: "tonight", path: "/", waitFor: "Where the night goes" },
  { file: "tonight-day", path: "/", waitFor: "Where the night goes", theme: "day" },
  { file: "tonight-narrow", path: "/", waitFor: "Go, from", width: 400, height: 800 },
  {
    file: "targets",
    path: "/targets",
    waitFor: "up this night",
    choose: [
      ["Kind", "galaxy"],
      ["Season", "clos"],
    ],
  },
  { file: "target", path: "/targets/NGC%20253", waitFor: "Its way over the skyline" },
  {
    file: "frame",
    path: "/projects/project-loop/frame",
    waitFor: "Picture of the sky",
    choose: [["Picture of the sky", "Simulated sky"]],
  },
  { file: "budget", path: "/projects/project-loop/budget", waitFor: "How deep the hours go" },
  { file: "plan", path: "/projects/project-loop/plan", waitFor: "Its nights" },
  { file: "season", path: "/season?night=2026-12-07", waitFor: "Compare" },
  { file: "log", path: "/log", waitFor: "What we have" },
  { file: "projects", path: "/projects", waitFor: "kept, counts" },
  { file: "crew", path: "/projects/project-shell/crew", waitFor: "Together" },
  { file: "record", path: "/projects/project-shell/record", waitFor: "Take it along" },
  { file: "nights", path: "/nights", waitFor: "Checklist" },
  { file: "live", path: "/nights/live", waitFor: "Next:", width: 390, height: 844 },
  {
    file: "rehearsal",
    path: "/nights/rehearsal?of=gap",
    waitFor: "To the next decision",
    press: ["To the next decision", "Darks meanwhile", "To the end"],
  },
  { file: "kit-place", path: "/kit/places/place-garden", waitFor: "Clear nights by month" },
  { file: "kit-rig", path: "/kit/rigs/rig-refractor", waitFor: "What it sees" },
  // Last: what is typed there stays, and every screen after it would say so.
  {
    file: "start",
    path: "/start",
    waitFor: "I watch from",
    fill: ["Town near by", "Cahors"],
    press: [
      "Cahors, FR",
      "8-inch Ritchey-Chretien 1625 mm f/8",
      "cooled, four-thirds, 16 megapixels",
      "monochrome, with filters",
      "village: the Milky Way is plain",
    ],
  },
];

const wanted = process.argv.slice(2);
const app = await startApp();
const profile = newProfile();
const driver = await openBrowser(profile.path);
mkdirSync(OUT, { recursive: true });
try {
  await driver.get(`${app.url}/healthz`);
  // As somebody sees it who has read the first explanation.
  await driver.executeScript("localStorage.setItem('zenithar-demo.hint.ribbon', 'read')");
  // The plan is made and seen first, so that all pictures are of one.
  await driver.get(`${app.url}/season`);
  await hands(driver).see("of the best possible");
  await driver.sleep(30_000);
  for (const view of VIEWS.filter((v) => wanted.length === 0 || wanted.includes(v.file))) {
    const size = { width: view.width ?? 1280, height: view.height ?? 800 };
    await driver.sendDevToolsCommand("Emulation.setDeviceMetricsOverride", {
      ...size,
      deviceScaleFactor: 1,
      mobile: false,
    });
    await driver.manage().addCookie({ name: "theme", value: view.theme ?? "dusk" });
    await driver.get(app.url + view.path);
    await driver.wait(
      async () => (await driver.executeScript<string>("return document.body.innerText")).includes(view.waitFor),
      20_000,
      view.file,
    );
    if (view.fill) await hands(driver).fill(...view.fill);
    for (const words of view.press ?? []) await hands(driver).press(words);
    if (view.press) await driver.sleep(1500);
    for (const [label, option] of view.choose ?? []) await hands(driver).choose(label, option);
    if (view.choose) {
      await driver.executeScript("document.activeElement.blur(); window.scrollTo(0, 0)");
      await driver.sleep(1000); // what was chosen is asked for
    }
    await driver.executeScript("return document.fonts.ready.then(() => true)");
    const text = () => driver.executeScript<string>("return document.body.innerText");
    await driver.wait(
      async () => !/Provisional|Reckoning|Good enough|on their way/.test(await text()),
      60_000,
      view.file,
    );
    await driver.wait(
      async () => driver.executeScript("return document.querySelector('nav[aria-label=Nights] a') !== null"),
      60_000,
      "the ribbon",
    );
    await driver.sleep(2500); // charts and the chart's objects come a moment later
    writeFileSync(`${OUT}${view.file}.png`, await driver.takeScreenshot(), "base64");
    console.log(`${view.file}.png`);
  }
} finally {
  await driver.quit();
  await app.stop();
  profile.remove();
}
