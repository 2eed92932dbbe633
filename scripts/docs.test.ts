import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";

const ROOT = new URL("..", import.meta.url).pathname;
const read = (path: string) => readFileSync(ROOT + path, "utf8");
/** Files of a folder and those under it, as paths from the root. */
const filesOf = (folder: string): string[] =>
  readdirSync(ROOT + folder, { recursive: true, encoding: "utf8" })
    .map((name) => `${folder}/${name}`)
    .filter((name) => /\.(ts|tsx)$/.test(name) && !name.includes("node_modules"));

describe("what is written about the house", () => {
  it("has every formula that the code cites, by its number", () => {
    const known = new Set([...read("docs/maths.md").matchAll(/\b(C?\d+\.\d+)\b/g)].map(([, number]) => number!));
    const cited = ["app", "scripts", "bench", "e2e"]
      .flatMap(filesOf)
      .flatMap((file) =>
        [...read(file).matchAll(/MATHS ((?:C?\d+\.\d+(?:, |\/| and )?)+)/g)].flatMap(([, list]) =>
          [...list!.matchAll(/C?\d+\.\d+/g)].map(([number]) => `${number} in ${file}`),
        ),
      );
    expect(cited.length).toBeGreaterThan(80);
    expect(cited.filter((c) => !known.has(c.split(" ")[0]!))).toEqual([]);
  });

  it("lists every room of the desk, and no other (docs/layout.md)", () => {
    const layout = read("docs/layout.md");
    const rooms = readdirSync(`${ROOT}app/desk`, { withFileTypes: true }).filter((entry) => entry.isDirectory());
    expect(rooms.length).toBeGreaterThan(4);
    for (const { name } of rooms) {
      const from = layout.indexOf(`${" ".repeat(17)}${name} `);
      const words = layout
        .slice(from)
        .split(/\n {17}[a-z]+ {2,}|\n {6}│/)[0]!
        .trim()
        .split(/\s+/)
        .slice(1);
      const there = readdirSync(`${ROOT}app/desk/${name}`)
        .filter((file) => file.endsWith(".ts") && !/test/.test(file))
        .map((file) => file.slice(0, -3));
      expect([name, words.sort()]).toEqual([name, there.sort()]);
    }
  });

  it("names tests that there are (docs/accuracy.md)", () => {
    const named = [...read("docs/accuracy.md").matchAll(/`((?:core|desk|storage|workers|screens|components|services|e2e)\/[\w/.-]+\.test\.tsx?)`/g)].map(([, file]) => file!); // prettier-ignore
    expect(named.length).toBeGreaterThan(20);
    const there = new Set(["app", "e2e"].flatMap(filesOf));
    expect(named.filter((file) => !there.has(file) && !there.has(`app/${file}`))).toEqual([]);
  });
});
