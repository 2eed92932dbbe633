import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { By, until } from "selenium-webdriver";
import { newProfile, openBrowser, startApp } from "../e2e/browser";

/**
 * A large library in the browser: cold start, screen changes and a save, with 20,000 log entries in 40 projects and with
 * 100,000. Medians; reported, never asserted. `BENCH_ENTRIES=20000` for one size.
 */
const SIZES = process.env["BENCH_ENTRIES"] ? [Number(process.env["BENCH_ENTRIES"])] : [20_000, 100_000];
const PROJECTS = 40;
const WAIT_MS = 15 * 60_000;

interface Raw {
  readonly id: string;
  readonly kind: string;
  readonly data: Record<string, unknown>;
}

/** The demo group with its mosaic copied 40 times, and log entries spread over three years of nights. */
function bundleOf(entries: number): string {
  const demo = JSON.parse(readFileSync(new URL("../app/data/demo.json", import.meta.url), "utf8")) as {
    readonly records: readonly Raw[];
  };
  const of = (kind: string) => demo.records.find((r) => r.kind === kind && (r.id === "project-loop" || r.data["projectId"] === "project-loop"))!; // prettier-ignore
  const records: Raw[] = [...demo.records];
  for (let p = 0; p < PROJECTS; p++) {
    const projectId = `project-${p}`;
    records.push({
      ...of("project"),
      id: projectId,
      data: { ...of("project").data, name: `Project ${p}`, frameId: `frame-${p}` },
    });
    for (const kind of ["frame", "goal"])
      records.push({ ...of(kind), id: `${kind}-${p}`, data: { ...of(kind).data, projectId } });
    records.push({ ...of("part"), id: `part-${projectId}-member-ines`, data: { ...of("part").data, projectId } });
  }
  const entry = of("contribution");
  const day0 = Date.UTC(2023, 11, 1, 20);
  for (let i = 0; i < entries; i++) {
    const startMs = day0 + (i % 1000) * 86_400_000 + (i % 90) * 320_000;
    records.push({
      ...entry,
      id: `contribution-file-${i.toString(16).padStart(16, "0")}`,
      data: {
        ...entry.data,
        projectId: `project-${i % PROJECTS}`,
        panel: `P${1 + (i % 6)}`,
        channel: i % 2 ? "Ha" : "OIII",
        night: new Date(startMs - 12 * 3_600_000).toISOString().slice(0, 10),
        startMs,
        taken: 1,
        kept: 1,
        reason: "",
      },
    });
  }
  return JSON.stringify({ ...demo, records });
}

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!;
const line = (what: string, values: readonly number[], aim: string) =>
  console.log(`${what.padEnd(46)} ${values.map((v) => v.toFixed(0).padStart(6)).join(" ")}   median ${median(values).toFixed(0)} ms   aim ${aim}`); // prettier-ignore

async function measure(entries: number): Promise<void> {
  const profile = newProfile();
  const app = await startApp();
  let driver = await openBrowser(profile.path);
  const double = entries > 20_000 ? 2 : 1;
  console.log(`\n${entries.toLocaleString("en")} log entries in ${PROJECTS} projects`);
  try {
    const path = join(profile.path, "many.json");
    writeFileSync(path, bundleOf(entries));
    await driver.manage().setTimeouts({ script: WAIT_MS, pageLoad: 120_000 });
    await driver.get(`${app.url}/kit/data`);
    const input = await driver.wait(until.elementLocated(By.css("input[aria-label='Import a file']")), 60_000);
    const began = Date.now();
    await input.sendKeys(path);
    await driver.wait(until.elementLocated(By.xpath("//button[.='Merge']")), WAIT_MS).click();
    await driver.wait(until.elementLocated(By.xpath("//*[contains(., ' new, ')]")), WAIT_MS);
    console.log(`taken in by "Import a file" in ${((Date.now() - began) / 1000).toFixed(1)} s`);

    const cold: number[] = [];
    const library: number[] = [];
    for (let i = 0; i < 3; i++) {
      await driver.quit();
      driver = await openBrowser(profile.path);
      await driver.manage().setTimeouts({ script: WAIT_MS, pageLoad: 120_000 });
      await driver.get(`${app.url}/kit`);
      await driver.wait(until.elementLocated(By.xpath("//h1[.='Places']")), WAIT_MS);
      const [shown, read] = await driver.executeScript<[number, number | null]>(
        "return [performance.now(), performance.getEntriesByName('library')[0]?.duration ?? null]",
      );
      cold.push(shown);
      if (read !== null) library.push(read);
    }
    if (library.length > 0) line("cold: library read and decoded", library, `${1500 * double} ms`);
    line("cold: from the address to the list of places", cold, "-");

    const change = (to: string) =>
      driver.executeAsyncScript<number>(
        `const [to, done] = arguments; const began = performance.now();
         const before = document.querySelector('main h1');
         const isThere = () => { const h = document.querySelector('main h1'); return location.pathname === to && h && h !== before; };
         const finish = () => requestAnimationFrame(() => setTimeout(() => done(performance.now() - began)));
         const look = new MutationObserver(() => { if (isThere()) { look.disconnect(); finish(); } });
         look.observe(document.body, { childList: true, subtree: true, characterData: true });
         [...document.querySelectorAll('a')].find((a) => a.getAttribute('href').split('?')[0] === to).click();`,
        to,
      );
    const round = ["/projects", "/kit", "/log", "/kit", "/targets", "/", "/nights", "/kit"] as const;
    const changes = new Map<string, number[]>();
    for (let i = 0; i < 3; i++)
      for (const to of round) {
        const took = await change(to);
        changes.set(to, [...(changes.get(to) ?? []), took]);
        await driver.sleep(400);
      }
    for (const [to, values] of changes) line(`screen change to ${to}`, values, `${100 * double} ms`);

    await driver.get(`${app.url}/log`);
    await driver.wait(until.elementLocated(By.css("[role=rowgroup].overflow-y-auto")), WAIT_MS);
    await driver.sleep(1000);
    const frames = await driver.executeAsyncScript<number[]>(
      `const done = arguments[0]; const box = document.querySelector("[role=rowgroup].overflow-y-auto");
       const frames = []; let last = performance.now(); let n = 0;
       const tick = (t) => { frames.push(t - last); last = t; box.scrollTop += 90; if (++n < 240) requestAnimationFrame(tick); else done(frames.slice(5)); };
       requestAnimationFrame(tick);`,
    );
    const slow = [...frames].sort((a, b) => a - b)[Math.floor(0.95 * frames.length)]!;
    console.log(
      `log table scrolled: ${(1000 / (frames.reduce((a, b) => a + b, 0) / frames.length)).toFixed(0)} pictures a second, slowest twentieth ${slow.toFixed(0)} ms   aim 50 a second`,
    );

    await driver.get(`${app.url}/kit/data`);
    await driver.wait(until.elementLocated(By.xpath("//label[contains(., 'Your name')]")), WAIT_MS);
    const saves: number[] = [];
    for (let i = 0; i < 7; i++) {
      const box = await driver.findElement(By.xpath("//label[contains(., 'Your name')]/following::input[1]"));
      await box.sendKeys("x");
      saves.push(
        await driver.executeAsyncScript<number>(
          `const done = arguments[0]; const began = performance.now();
           const button = [...document.querySelectorAll('button')].find((b) => b.textContent === 'Save name');
           button.click();
           const look = () => [...document.querySelectorAll('button')].find((b) => b.textContent === 'Save name').disabled ? done(performance.now() - began) : setTimeout(look, 1);
           setTimeout(look, 1);`,
        ),
      );
      await driver.sleep(300);
    }
    line("save: from the press to the new page", saves, `${50 * double} ms`);
    const memory = await driver.executeScript<number>("return performance.memory?.usedJSHeapSize ?? 0");
    console.log(`memory of the tab (JavaScript heap): ${(memory / 1e6).toFixed(0)} MB`);
  } finally {
    await driver.quit();
    await app.stop();
    profile.remove();
  }
}

for (const size of SIZES) await measure(size);
