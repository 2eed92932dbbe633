import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

/** A package that travels in the build, with its licence. */
export interface Licence {
  readonly name: string;
  readonly version: string;
  /** As the package names it, by SPDX as a rule. */
  readonly licence: string;
  /** Its own text; null where the package ships none. */
  readonly text: string | null;
}

interface Manifest {
  readonly name: string;
  readonly version: string;
  readonly license?: string;
  readonly licenses?: readonly { readonly type: string }[];
  readonly dependencies?: Readonly<Record<string, string>>;
}

const read = (folder: string): Manifest => JSON.parse(readFileSync(join(folder, "package.json"), "utf8")) as Manifest;

/** Where a package finds another one, as Node does. */
function folderOf(name: string, from: string): string | null {
  for (let at = from; ; at = at.slice(0, Math.max(0, at.lastIndexOf("/node_modules/")))) {
    const folder = join(at, "node_modules", name);
    if (existsSync(join(folder, "package.json"))) return folder;
    if (!at.includes("/node_modules/")) return null;
  }
}

const TEXT = /^(licen[cs]e|copying|unlicense)/i;

/** All packages that are asked for at run time, by name, with their licences; `root` = the folder of the app's own package.json. */
export function licencesOf(root: string): Licence[] {
  const found = new Map<string, Licence>();
  const follow = (name: string, from: string): void => {
    const folder = folderOf(name, from);
    if (folder === null) return;
    const { version, license, licenses, dependencies = {} } = read(folder);
    const key = `${name} ${version}`;
    if (found.has(key)) return;
    const file = readdirSync(folder).find((f) => TEXT.test(f));
    found.set(key, {
      name,
      version,
      licence: license ?? licenses?.map((l) => l.type).join(" or ") ?? "not named",
      text: file === undefined ? null : readFileSync(join(folder, file), "utf8").trim(),
    });
    for (const next of Object.keys(dependencies)) follow(next, folder);
  };
  for (const name of Object.keys(read(root).dependencies ?? {})) follow(name, root);
  return [...found.values()].sort((a, b) => a.name.localeCompare(b.name) || a.version.localeCompare(b.version));
}

const LINE = "-".repeat(72);

/** The notices of the app and the licences of its packages as one text: those of one text together. */
export function licencesText(notice: string, licences: readonly Licence[]): string {
  const byText = new Map<string, Licence[]>();
  for (const one of licences) {
    const key = one.text ?? `${one.licence} (the package ships no text of it)`;
    byText.set(key, [...(byText.get(key) ?? []), one]);
  }
  const parts = [...byText].map(
    ([text, of]) => `${of.map((l) => `${l.name} ${l.version} (${l.licence})`).join("\n")}\n\n${text}`,
  );
  return `${[notice.trim(), ...parts].join(`\n\n${LINE}\n\n`)}\n`;
}
