import { readFileSync } from "node:fs";
import { startApp } from "../e2e/browser";

/** Pages a second, the slowest per cent, and whether memory levels off. Reported, never asserted. `npx tsx bench/server.ts` */
const PAGES = Number(process.env["BENCH_PAGES"] ?? 10_000);
const AT_ONCE = 8;
const PATHS = ["/", "/targets", "/projects", "/nights", "/log", "/kit", "/kit/data", "/no/such/page"];

const app = await startApp();
const server = app.process.pid;
const rssMb = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server!}/status`, "utf8"))?.[1] ?? 0) / 1024;
const times: number[] = [];
const memory: number[] = [rssMb()];
const began = performance.now();
let asked = 0;
const worker = async () => {
  while (asked < PAGES) {
    const path = PATHS[asked++ % PATHS.length]!;
    const from = performance.now();
    await (await fetch(app.url + path)).text();
    times.push(performance.now() - from);
    if (times.length % (PAGES / 10) === 0) memory.push(rssMb());
  }
};
await Promise.all(Array.from({ length: AT_ONCE }, worker));
const seconds = (performance.now() - began) / 1000;
times.sort((a, b) => a - b);
const at = (share: number) => times[Math.min(times.length - 1, Math.floor(share * times.length))]!.toFixed(1);
console.log(
  `${PAGES} pages, ${AT_ONCE} at once: ${(PAGES / seconds).toFixed(0)} pages/s, median ${at(0.5)} ms, p99 ${at(0.99)} ms`,
);
console.log(`memory (RSS, MB) at the start and after every tenth: ${memory.map((m) => m.toFixed(0)).join(" ")}`);
await app.stop();
