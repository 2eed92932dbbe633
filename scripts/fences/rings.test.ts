import { readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { expect, it } from "vitest";

const modules = new Set(
  readdirSync("app", { recursive: true, encoding: "utf8" })
    .map((name) => join("app", name))
    .filter((name) => /\.tsx?$/.test(name) && !/\.(test|test-data)\./.test(name)),
);

/** What a module takes in of the house, types too. */
function takenIn(file: string): string[] {
  return [...readFileSync(file, "utf8").matchAll(/from "([~.][^"]*)"/g)].flatMap(([, name]) => {
    const path = name!.startsWith("~/") ? join("app", name!.slice(2)) : join(dirname(file), name!);
    return [`${path}.ts`, `${path}.tsx`, `${path}/index.ts`].filter((p) => modules.has(p));
  });
}

it("no module leads back to itself, not by types either", () => {
  const graph = new Map([...modules].map((file) => [file, takenIn(file)]));
  const done = new Set<string>();
  const rings: string[] = [];
  const follow = (file: string, path: readonly string[]): void => {
    const at = path.indexOf(file);
    if (at !== -1) rings.push([...path.slice(at), file].join(" > "));
    if (at !== -1 || done.has(file)) return;
    for (const next of graph.get(file) ?? []) follow(next, [...path, file]);
    done.add(file);
  };
  for (const file of modules) follow(file, []);
  expect(modules.size).toBeGreaterThan(300);
  expect(rings).toEqual([]);
});
