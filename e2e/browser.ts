import { spawn, type ChildProcess } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Builder, By, until, type WebElement } from "selenium-webdriver";
import * as chrome from "selenium-webdriver/chrome.js";
import { inject } from "vitest";

/** How long the server takes here while nothing else runs, and the longest that is waited for it. */
const [USUAL_START_MS, STARTS_WITHIN_MS] = [3000, 180_000];
const [USUAL_WAIT_MS, MOST_SLOWNESS] = [30_000, 5];

/** Patience with the page: long, since two journeys share a machine, and longer on one where the server took long to start; only a failure takes that long. */
export let WAIT_MS = USUAL_WAIT_MS;
export const patience = (): number => WAIT_MS;

/** What tests of an app with a clock of its own take for now: before the samples' last nights, which play in early December. */
export const ORDINARY_DAY = "2026-11-25T16:40:00Z";

/** A script after which `Date` goes on from an instant (ISO 8601) instead of the machine's: the day a test is run on decides nothing. */
export function clockScript(now: string): string {
  const ahead = Date.parse(now) - Date.now();
  return `globalThis.Date = new Proxy(Date, {
    construct: (Real, [...given], target) => Reflect.construct(Real, given.length > 0 ? given : [Real.now() + ${ahead}], target),
    get: (Real, name) => (name === "now" ? () => Real.now() + ${ahead} : Real[name]),
  });`;
}

/** A free port on this machine. */
async function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once("error", reject);
    probe.listen(0, "127.0.0.1", () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === "object" && address ? address.port : 0));
    });
  });
}

/** The built app on a port of its own, with the demo's fixed evening unless told otherwise. */
export interface RunningApp {
  readonly url: string;
  stop(): Promise<number | null>;
}

/** One that was started here, with its process. */
export interface StartedApp extends RunningApp {
  readonly process: ChildProcess;
}

/** Starts the server as `npm start` does and waits until it answers. One process, so that a signal reaches the server itself. */
export async function startApp(
  environment: Record<string, string> = { ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z" },
  services = "tern:fine,larch:fine,quartz:fine",
  /** Gets what the server writes into its log. */
  log?: string[],
  /** The server's clock, where it is not the machine's. */
  now?: string,
): Promise<StartedApp> {
  const port = Number(environment["PORT"] ?? (await freePort()));
  const root = new URL("..", import.meta.url).pathname;
  const clock = now ? ["--import", `data:text/javascript,${encodeURIComponent(clockScript(now))}`] : [];
  const child = spawn(process.execPath, [...clock, "--import", "tsx", "server.ts"], {
    cwd: root,
    env: {
      ...process.env,
      NODE_ENV: "production",
      PORT: String(port),
      HOST: "127.0.0.1",
      ZENITHAR_SERVICES: services,
      ...environment,
    },
    stdio: ["ignore", "pipe", log ? "pipe" : "inherit"],
  });
  child.stderr?.on("data", (piece: Buffer) => log?.push(piece.toString()));
  const url = `http://127.0.0.1:${port}`;
  const begun = performance.now();
  while (!(await fetch(`${url}/healthz`).catch(() => null))?.ok) {
    const isGone = child.exitCode !== null || child.signalCode !== null;
    if (isGone || performance.now() - begun > STARTS_WITHIN_MS) {
      child.kill("SIGKILL"); // nothing is left behind
      throw new Error(isGone ? "the server ended while it started" : "the server did not start");
    }
    await new Promise((r) => setTimeout(r, 100));
  }
  const slowness = Math.min(MOST_SLOWNESS, (performance.now() - begun) / USUAL_START_MS);
  WAIT_MS = Math.max(WAIT_MS, USUAL_WAIT_MS * slowness);
  const stop = () =>
    new Promise<number | null>((resolve) => {
      if (child.exitCode !== null) return resolve(child.exitCode); // stopped before
      child.once("exit", (code) => resolve(code));
      child.kill("SIGTERM");
    });
  return { url, process: child, stop };
}

/** A headless Chromium whose data lives in `profile`, so that it can be closed and opened again. */
export async function openBrowser(
  profile: string,
  size = { width: 1280, height: 800 },
  more: readonly string[] = [],
): Promise<chrome.Driver> {
  const options = new chrome.Options();
  options.setChromeBinaryPath("/usr/bin/chromium");
  options.addArguments(
    "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync", "--hide-scrollbars",
    "--disable-features=PreloadTopChromeWebUI,WebUIOmniboxPopup,WebUIOmniboxAimPopup,SpareRendererForSitePerProcess", // pages of the browser's own that nobody looks at
    "--host-resolver-rules=MAP backyard.example 127.0.0.1 , MAP * ~NOTFOUND , EXCLUDE 127.0.0.1 , EXCLUDE localhost", `--user-data-dir=${profile}`, ...more,
  ); // prettier-ignore
  options.setUserPreferences({
    "download.default_directory": join(profile, "downloads"),
    "download.prompt_for_download": false,
    "profile.default_content_setting_values.geolocation": 2, // refused, as many people do
  });
  process.env["XDG_CACHE_HOME"] = join(profile, "cache");
  process.env["XDG_CONFIG_HOME"] = join(profile, "config");
  const driver = (await new Builder()
    .forBrowser("chrome")
    .setChromeOptions(options)
    .setChromeService(new chrome.ServiceBuilder("/usr/bin/chromedriver"))
    .build()) as chrome.Driver;
  await driver.sendDevToolsCommand("Emulation.setDeviceMetricsOverride", {
    ...size,
    deviceScaleFactor: 1,
    mobile: false,
  });
  await driver.sendDevToolsCommand("Browser.setDownloadBehavior", {
    behavior: "allow",
    downloadPath: join(profile, "downloads"),
  });
  return driver;
}

/** An app at the demo's evening that keeps nothing in the browser for use without it. */
export const startPlainDemo = (more: Record<string, string> = {}): Promise<RunningApp> =>
  startApp({ ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z", ZENITHAR_OFFLINE: "off", ...more });

/** An app without the demo on an ordinary day, whatever day it is; its server alone has the clock. */
export const startPlainApp = (): Promise<RunningApp> =>
  startApp({ ZENITHAR_DEMO_NOW: "", ZENITHAR_OFFLINE: "off" }, undefined, undefined, ORDINARY_DAY);

/** Gives the pages of a browser's tab the same clock. */
export async function setClock(driver: chrome.Driver, now = ORDINARY_DAY): Promise<void> {
  await driver.sendDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", { source: clockScript(now) });
}

/** A folder for a browser's data, and how to remove it. */
export function newProfile(): { readonly path: string; remove(): void } {
  const path = mkdtempSync(join(tmpdir(), "zenithar-browser-"));
  return { path, remove: () => rmSync(path, { recursive: true, force: true, maxRetries: 5 }) };
}

/** How long a page of the app may take before it is loaded anew, ms. */
const GOES_WITHIN_MS = 20_000;

/**
 * Goes to an address: within the app, as by a link, where it is running, which spares it its start; loads it where it is not, where the
 * app is there already, and where it does not come to show it.
 */
export async function visit(driver: chrome.Driver, url: string): Promise<void> {
  const isThere = await driver
    .executeAsyncScript<boolean>(
      `const [url, most, done] = arguments;
       const { origin, pathname, search, hash } = new URL(url);
       const router = window.__reactRouterDataRouter;
       const address = pathname + search;
       const shown = () => document.getElementById("page")?.dataset.at;
       if (!router || origin !== location.origin || shown() === undefined || shown() === address) return done(false);
       const begun = performance.now();
       const look = () => {
         const { pathname, search } = router.state.location;
         if (router.state.navigation.state === "idle" && shown() === pathname + search) done(true);
         else if (performance.now() - begun > most) done(false);
         else setTimeout(look, 10);
       };
       router.navigate(address + hash).then(look, () => done(false));`,
      url,
      GOES_WITHIN_MS,
    )
    .catch(() => false); // no page yet, or one that went away meanwhile
  if (!isThere) await driver.get(url);
}

/** What can be read in a part of the page, line by line: as the browser lays it out, far quicker than the driver works it out node by node. */
export async function textOf(driver: chrome.Driver, part: string | By): Promise<string> {
  const element = await driver.findElement(typeof part === "string" ? By.css(part) : part);
  const text = await driver.executeScript<string>("return arguments[0].innerText", element);
  const lines = text.split("\n").map((line) => line.replaceAll(/\s+/g, " ").trim());
  return lines.filter((line) => line !== "").join("\n");
}

/** What a person does: looks for words, labels and buttons. */
export function hands(driver: chrome.Driver) {
  const byText = (tag: string, text: string) =>
    By.xpath(`//${tag}[contains(normalize-space(.), ${JSON.stringify(text)})]`);
  /** Waits until a deed is done; when it never is, fails with what the last try met and what the page says. */
  const done = async (deed: () => Promise<boolean>, complaint: string): Promise<void> => {
    let last = "";
    try {
      await driver.wait(async () => {
        try {
          return await deed();
        } catch (error) {
          last = error instanceof Error ? error.message.split("\n")[0]! : String(error);
          return false; // moved, covered or not there yet
        }
      }, WAIT_MS);
    } catch {
      const seen = await textOf(driver, "body");
      throw new Error(
        `${complaint} (${last || "it never took"}). At ${await driver.getCurrentUrl()} the page said:\n${seen.slice(0, 1500)}`,
      );
    }
  };
  const self = {
    async see(text: string): Promise<WebElement> {
      // The innermost element that holds the words.
      const at = By.xpath(
        `//*[not(self::script or self::style)][contains(normalize-space(.), ${JSON.stringify(text)})][not(*[contains(normalize-space(.), ${JSON.stringify(text)})])]`,
      );
      let seen: WebElement | undefined;
      await done(async () => (seen = (await driver.findElements(at))[0]) !== undefined, `did not see “${text}”`);
      return seen!;
    },
    async gone(text: string): Promise<void> {
      await driver.wait(async () => !(await textOf(driver, "body")).includes(text), WAIT_MS, `still sees “${text}”`);
    },
    async press(text: string): Promise<void> {
      const at = By.xpath(
        `//*[self::button or self::a or self::summary or @role='button' or @role='option'][contains(normalize-space(.), ${JSON.stringify(text)}) or @aria-label=${JSON.stringify(text)}]`,
      );
      await done(async () => {
        const found = await driver.findElement(at);
        // The driver clicks what is disabled without a word, and nothing happens: a person waits until it can be pressed.
        if (!(await found.isEnabled())) return false;
        await found.click().catch(async (covered: unknown) => {
          // What lies under a bar is scrolled free, as a person would, and pressed at the next try.
          await driver.executeScript("arguments[0].scrollIntoView({ block: 'center' })", found);
          throw covered;
        });
        return true;
      }, `could not press “${text}”`);
    },
    async box(label: string): Promise<WebElement> {
      const labelled = await driver.wait(
        until.elementLocated(By.xpath(`//label[starts-with(normalize-space(.), ${JSON.stringify(label)})]`)),
        WAIT_MS,
        `no box “${label}”`,
      );
      return driver.findElement(By.id((await labelled.getAttribute("for")) ?? ""));
    },
    /** Types into the box of a label (the last one of that name), again if the page draws itself anew meanwhile. */
    async fill(label: string, value: string): Promise<void> {
      await done(async () => {
        const word = JSON.stringify(label);
        // The label itself, with or without its unit; the last one where a page has several.
        const labels = await driver.findElements(
          By.xpath(`//label[normalize-space(.) = ${word} or starts-with(normalize-space(.), concat(${word}, " ·"))]`),
        );
        const box = await driver.findElement(By.id((await labels.at(-1)?.getAttribute("for")) ?? "no such label"));
        await driver.executeScript(
          "arguments[0].scrollIntoView({block:'center'}); arguments[0].focus(); arguments[0].select?.();",
          box,
        );
        await box.sendKeys(value === "" ? "\uE017" : value);
        return (await box.getAttribute("value")) === value;
      }, `could not fill “${label}” with “${value}”`);
    },
    async choose(label: string, option: string): Promise<void> {
      const box = await self.box(label);
      await box.findElement(By.xpath(`./option[contains(normalize-space(.), ${JSON.stringify(option)})]`)).click();
    },
    /** The value of a labelled box, read in one step, so that a page that draws itself anew meanwhile does no harm. */
    async value(label: string): Promise<string> {
      let found: string | null = null;
      await done(async () => {
        found = await driver.executeScript<string | null>(
          `const label = [...document.querySelectorAll('label')].find((l) => l.textContent.trim().startsWith(arguments[0]));
           return document.getElementById(label?.htmlFor)?.value ?? null`,
          label,
        );
        return found !== null;
      }, `no value of “${label}”`);
      return found ?? "";
    },
    text: async () => textOf(driver, "main"),
    byText,
  };
  return self;
}

/** Where a file lies that a browser has been given, once all of it has come. */
export async function downloaded(
  driver: chrome.Driver,
  profile: string,
  isIt: (name: string) => boolean,
): Promise<string> {
  const folder = join(profile, "downloads");
  let [path, size] = ["", -1];
  await driver.wait(
    () => {
      const name = existsSync(folder) ? readdirSync(folder).find(isIt) : undefined;
      const before = size;
      path = name === undefined ? "" : join(folder, name);
      size = name === undefined ? -1 : statSync(path).size;
      return size > 0 && size === before;
    },
    WAIT_MS,
    "no such file came",
  );
  return path;
}

/** A browser before the demo's evening of 5 December. */
export interface Stage {
  readonly app: RunningApp;
  readonly driver: chrome.Driver;
  readonly me: ReturnType<typeof hands>;
}

/** The app at the demo's evening that all journeys share: whoever stops theirs, keeps it for use without it or wants another one starts one. */
export function sharedApp(): RunningApp {
  WAIT_MS = Math.max(WAIT_MS, inject("patienceMs"));
  return { url: inject("appUrl"), stop: () => Promise.resolve(0) };
}

/** Opens the app at the demo's evening, and a browser. */
export async function openStage(profile: string): Promise<Stage> {
  const app = sharedApp();
  const driver = await openBrowser(profile);
  return { app, driver, me: hands(driver) };
}

/** Kills every process that works in a folder, at once. */
export function killAll(folder: string): void {
  for (const pid of readdirSync("/proc").filter((name) => /^\d+$/.test(name) && Number(name) !== process.pid))
    try {
      if (readFileSync(`/proc/${pid}/cmdline`, "utf8").includes(folder)) process.kill(Number(pid), "SIGKILL");
    } catch {
      // Gone already.
    }
}

/** Waits until the whole app lies in the browser. */
export async function untilOffline(driver: chrome.Driver): Promise<void> {
  await driver.wait(
    () => driver.executeScript<boolean>("return document.documentElement.dataset.offline === 'ready'"),
    WAIT_MS,
    "the app should be fetched for use without its server",
  );
}

/** Closes both, and throws the browser's data away. */
export async function closeStage(
  { app, driver }: Pick<Stage, "app" | "driver">,
  profile: { remove(): void },
): Promise<void> {
  await driver.quit();
  await app.stop();
  profile.remove();
}
