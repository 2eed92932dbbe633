import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { licencesOf, licencesText } from "./collect";

const licences = licencesOf(process.cwd());
const notice = readFileSync("NOTICE.md", "utf8");

describe("the licences that travel with the build", () => {
  it("hold every package the app asks for at run time, and what those ask for", () => {
    const { dependencies } = JSON.parse(readFileSync("package.json", "utf8")) as {
      dependencies: Record<string, string>;
    };
    const names = licences.map((l) => l.name);
    expect(names).toEqual(expect.arrayContaining(Object.keys(dependencies)));
    expect(names).toEqual(expect.arrayContaining(["@hapi/hoek", "scheduler"])); // of joi, of react-dom
    expect(new Set(licences.map((l) => `${l.name} ${l.version}`)).size).toBe(licences.length);
  });
  it("are free ones, each with its text; those that ship none are known by name", () => {
    const free = /MIT|ISC|BSD|Apache-2\.0|MPL-2\.0|CC0|OFL|Unlicense|0BSD/;
    expect(licences.filter((l) => !free.test(l.licence)).map((l) => l.name)).toEqual(["localforage-setitems"]); // MIT by its readme
    const text = licencesText(notice, licences);
    for (const { name, version, licence } of licences) expect(text).toContain(`${name} ${version} (${licence})`);
    expect(text).toContain("Mozilla Public License Version 2.0");
    expect(text).toContain("Apache License");
    expect(licences.filter((l) => l.text === null).length).toBeLessThan(20);
  });
  it("are those the notices name where a licence asks for it", () => {
    for (const name of ["GeoNames", "exifreader", "comlink", "localforage"]) expect(notice).toContain(name);
    const asking = licences.filter((l) => /Apache|MPL|OFL/.test(l.licence)).map((l) => l.name);
    for (const name of asking.filter((n) => !n.startsWith("@fontsource"))) expect(notice).toContain(name);
  });
});
