import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { EVERY_PAGE, loadedWith, ROUTES } from "./first-page";

/** From a module back to the page that asked for it. */
function way(loaded: ReadonlyMap<string, string | null>, to: string): string {
  const steps: string[] = [];
  for (let at: string | null | undefined = to; at; at = loaded.get(at)) steps.push(at.replace(/.*\/app\//, ""));
  return steps.reverse().join(" > ");
}

describe("what a page loads before it is drawn", () => {
  it.each(ROUTES)("%s: no schemas; the worker that reads and checks has them", (route) => {
    const loaded = loadedWith([...EVERY_PAGE, route]);
    expect(loaded.size).toBeGreaterThan(100);
    const schemas = [...loaded.keys()].filter((file) => /from "joi"/.test(readFileSync(file, "utf8")));
    expect(schemas.slice(0, 1).map((file) => way(loaded, file))).toEqual([]);
  });
});
