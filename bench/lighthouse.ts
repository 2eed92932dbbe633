import lighthouse from "lighthouse";
import { launch } from "chrome-launcher";
import { newProfile, startApp } from "../e2e/browser";

/** Lighthouse with its usual mobile profile (a slow phone on a slow line), each page on a first visit: `npm run lighthouse [page ...]`. */
const PAGES =
  process.argv.length > 2 ? process.argv.slice(2) : ["/", "/targets", "/projects/project-loop/frame", "/season"];
const SCORES = ["performance", "accessibility", "best-practices", "seo"] as const;
/** What we aim for: performance, and the other three; blocking, ms. */
const AIM = "85 / 100 / 100 / 100, blocking 300 ms";

const app = await startApp();
console.log(`aim: ${AIM}`);
try {
  for (const page of PAGES) {
    const profile = newProfile();
    const chrome = await launch({
      chromePath: "/usr/bin/chromium",
      userDataDir: profile.path,
      chromeFlags: ["--headless", "--no-sandbox", "--disable-gpu", "--disable-quic"],
      logLevel: "silent",
    });
    try {
      const result = await lighthouse(app.url + page, {
        port: chrome.port,
        logLevel: "error",
        onlyCategories: [...SCORES],
      });
      if (!result) throw new Error("no report");
      const { categories, audits } = result.lhr;
      const scores = SCORES.map((name) => Math.round((categories[name]?.score ?? 0) * 100)).join(" / ");
      const said = (id: string) => audits[id]?.displayValue ?? "–";
      const largest = said("largest-contentful-paint");
      console.log(`${page.padEnd(32)} ${scores}   largest paint ${largest}, blocking ${said("total-blocking-time")}, shift ${said("cumulative-layout-shift")}`); // prettier-ignore
      const failed = Object.values(categories)
        .filter((c) => c.id !== "performance")
        .flatMap((c) => c.auditRefs.map((r) => audits[r.id]))
        .filter((audit) => audit && audit.score !== null && audit.score < 1);
      for (const audit of failed) console.log(`  ${audit!.id}: ${audit!.title}`);
    } finally {
      chrome.kill();
      profile.remove();
    }
  }
} finally {
  await app.stop();
}
