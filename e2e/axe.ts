import axe from "axe-core";
import type { AxeResults } from "axe-core";
import type * as chrome from "selenium-webdriver/chrome.js";

/** How a page is built, for who goes through it by its landmarks, headings and tables: axe-core's rules of good practice. */
const STRUCTURE = [
  "region",
  "landmark-one-main",
  "landmark-no-duplicate-main",
  "landmark-unique",
  "landmark-complementary-is-top-level",
  "page-has-heading-one",
  "heading-order",
  "empty-heading",
  "empty-table-header",
  "scope-attr-valid",
  "table-duplicate-name",
];
/** All rules of WCAG 2.2 at levels A and AA, and how a page is built. */
export const ALL_RULES = {
  runOnly: ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"],
  rules: Object.fromEntries(
    // The last is left out of the levels as long as it is called experimental: what is spoken begins with what is shown.
    [...STRUCTURE, "label-content-name-mismatch"].map((rule) => [rule, { enabled: true }]),
  ),
};
/** What can differ where a page is the same and only its colours are others. */
export const COLOUR_RULES = { runOnly: { type: "rule", values: ["color-contrast", "link-in-text-block"] } };

/** What axe-core finds on the page as it is, in a theme; each with where and why. */
export async function breachesOf(
  driver: chrome.Driver,
  page: string,
  theme: "day" | "dusk" | "ember",
  options: object,
): Promise<string[]> {
  if (!(await driver.executeScript<boolean>("return 'axe' in window"))) await driver.executeScript(axe.source);
  const results = await driver.executeAsyncScript<AxeResults>(
    `const [theme, options, done] = arguments;
     document.documentElement.dataset.theme = theme;
     requestAnimationFrame(() => {
       document.getAnimations().forEach((a) => a.finish()); // colours fade into each other
       axe.run(document, options).then(done);
     });`,
    theme,
    options,
  );
  return results.violations.map(
    (v) =>
      `${page} in ${theme}, ${v.id}: ${v.nodes
        .slice(0, 3)
        .map((n) => `${n.target.join(" ")} ${n.failureSummary?.split("\n")[1] ?? ""}`)
        .join(" | ")}`,
  );
}
