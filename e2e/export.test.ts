import { execFile } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { extname, join } from "node:path";
import { promisify } from "node:util";
import { logging } from "selenium-webdriver";
import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, newProfile, openBrowser, untilOffline } from "./browser";
import { startEdr, type EdrStandIn } from "./edr-stand-in";

const BASE = "/night/sky/";
const TYPES: Readonly<Record<string, string>> = { ".html": "text/html; charset=utf-8", ".js": "text/javascript", ".css": "text/css", ".json": "application/json", ".svg": "image/svg+xml", ".png": "image/png", ".woff2": "font/woff2", ".webmanifest": "application/manifest+json" }; // prettier-ignore

/** A host of files as people rent one: folders have an index, what is not there is answered with 404.html, other paths are somebody else's. */
function hostOf(folder: string): Server {
  return createServer((req, res) => {
    const { pathname } = new URL(req.url ?? "/", "http://127.0.0.1");
    if (!pathname.startsWith(BASE)) return void res.writeHead(404).end("somebody else's");
    const named = join(folder, decodeURIComponent(pathname.slice(BASE.length)));
    const file = existsSync(named) && statSync(named).isDirectory() ? join(named, "index.html") : named;
    const isThere = existsSync(file);
    const sent = isThere ? file : join(folder, "404.html");
    res.writeHead(isThere ? 200 : 404, { "content-type": TYPES[extname(sent)] ?? "application/octet-stream" });
    res.end(readFileSync(sent));
  });
}

const run = promisify(execFile);
const exported = (args: readonly string[], env: Readonly<Record<string, string>> = {}) =>
  run(process.execPath, ["--import", "tsx", "scripts/export/build.ts", ...args], {
    cwd: new URL("..", import.meta.url).pathname,
    env: { ...process.env, ...env },
  });

/** The app as a folder on a host of files, under a path of its own: no server of ours, weather asked by the browser. */
describe("the export", () => {
  const folder = join(mkdtempSync(join(tmpdir(), "zenithar-export-")), "site");
  const profile = newProfile();
  let service: EdrStandIn;
  let host: Server;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  let url = "";
  const noise = async () =>
    (await driver.manage().logs().get(logging.Type.BROWSER)).map((e) => e.message).filter((m) => !m.includes("404"));

  beforeAll(async () => {
    service = await startEdr(true);
    await exported(["--base", BASE, "--to", folder], {
      ZENITHAR_DEMO_NOW: "2026-12-05T16:40:00Z",
      ZENITHAR_EDR_URL: service.collection,
      ZENITHAR_EDR_NAME: "Hill station model",
      ZENITHAR_EDR_CREDIT: "Data by the Hill station, CC BY 4.0",
    });
    host = hostOf(folder);
    await new Promise<void>((done) => host.listen(0, "127.0.0.1", done));
    url = `http://127.0.0.1:${(host.address() as AddressInfo).port}${BASE}`;
    driver = await openBrowser(profile.path);
    me = hands(driver);
  });
  afterAll(async () => {
    await driver.quit();
    host.closeAllConnections();
    host.close();
    await service.stop();
    profile.remove();
    rmSync(folder, { recursive: true });
  });

  it("opens under its path, asks the service itself, and plays no simulated one", async () => {
    await driver.get(url);
    await me.see("Worth of the night");
    await me.see("Hill station model");
    await me.see("Data by the Hill station, CC BY 4.0");
    expect(await me.text()).not.toContain("simulated");
    expect(service.asked.length).toBeGreaterThan(0);
    expect(await noise()).toEqual([]);
  });

  it("goes round, saves, and opens deep addresses, those of one's own records too", async () => {
    for (const [press, see] of [
      ["Targets", "up this night"],
      ["Kit", "Garden behind the mill"],
      ["Projects", "kept, counts"],
      ["The whole Veil, two by three", "by"],
      ["Frame", "Position angle"],
      ["Season", "of the best possible"],
    ] as const) {
      await me.press(press);
      await me.see(see);
      expect(await driver.getCurrentUrl()).toContain(BASE);
    }
    await driver.get(`${url}kit`);
    await me.press("Tomasz’s terrace");
    await me.fill("Elevation", "77");
    await me.press("Save place");
    await me.see("Garden behind the mill");
    await driver.get(`${url}projects/project-loop/budget`);
    await me.see("Protect stars");
    await driver.get(`${url}no/such/page`);
    await me.see("No such page");
    expect(await noise()).toEqual([]);
  });

  it("opens without its host, after the browser was closed", async () => {
    await driver.get(url);
    await me.see("Worth of the night");
    await untilOffline(driver);
    await driver.quit();
    host.closeAllConnections();
    await new Promise((done) => host.close(done));
    driver = await openBrowser(profile.path);
    me = hands(driver);
    for (const [path, words] of [
      ["", "Worth of the night"],
      ["targets/NGC%207000", "North America"],
      ["kit/data", "Take it with you"],
      ["projects/project-loop/frame", "Position angle"],
    ] as const) {
      await driver.get(url + path);
      await me.see(words);
    }
    await driver.get(`${url}kit`);
    await me.press("Tomasz’s terrace");
    expect(await me.value("Elevation")).toBe("77");
  });

  it("refuses a path that is none, a key that everybody could read, and a folder that holds something else", async () => {
    await expect(exported(["--base", "stars"])).rejects.toThrow("a path begins and ends with a slash");
    await expect(exported([], { ZENITHAR_EDR_KEY: "a secret" })).rejects.toThrow("everybody could read the key");
    const full = mkdtempSync(join(tmpdir(), "zenithar-full-"));
    writeFileSync(join(full, "letters.txt"), "of old");
    await expect(exported(["--to", full])).rejects.toThrow("holds something that is no export");
    expect(readFileSync(join(full, "letters.txt"), "utf8")).toBe("of old");
    rmSync(full, { recursive: true });
  });
});
