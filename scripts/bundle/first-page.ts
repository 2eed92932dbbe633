import { existsSync, readdirSync, readFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import ts from "typescript";

const APP = new URL("../../app", import.meta.url).pathname;

/** What every page begins with. */
export const EVERY_PAGE = ["entry.client.tsx", "root.tsx", "screens/shell/route.tsx"];
/** The pages. */
export const ROUTES = readdirSync(join(APP, "screens"), { recursive: true, encoding: "utf8" })
  .filter((file) => /route\.tsx$/.test(basename(file)))
  .map((file) => join("screens", file));

/** What a module takes in when it is loaded, by name; "*" = all of it. */
interface Source {
  readonly imports: readonly { readonly from: string; readonly names: readonly string[] | "*" }[];
  /** Names it only hands on. */
  readonly handsOn: ReadonlyMap<string, string>;
}

function read(file: string): Source {
  const imports: { from: string; names: readonly string[] | "*" }[] = [];
  const handsOn = new Map<string, string>();
  const source = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest);
  for (const statement of source.statements) {
    if (ts.isImportDeclaration(statement) && ts.isStringLiteral(statement.moduleSpecifier)) {
      const { importClause: clause, moduleSpecifier } = statement;
      const from = moduleSpecifier.text;
      const named = clause?.namedBindings;
      if (!clause || (named && ts.isNamespaceImport(named))) imports.push({ from, names: "*" });
      else if (clause.phaseModifier !== ts.SyntaxKind.TypeKeyword) {
        const names = named
          ? named.elements.filter((e) => !e.isTypeOnly).map((e) => (e.propertyName ?? e.name).text)
          : [];
        if (clause.name) names.push("default");
        if (names.length > 0) imports.push({ from, names });
      }
    } else if (
      ts.isExportDeclaration(statement) &&
      !statement.isTypeOnly &&
      statement.moduleSpecifier &&
      ts.isStringLiteral(statement.moduleSpecifier)
    ) {
      const from = statement.moduleSpecifier.text;
      if (statement.exportClause && ts.isNamedExports(statement.exportClause))
        for (const e of statement.exportClause.elements) if (!e.isTypeOnly) handsOn.set(e.name.text, from);
    }
  }
  return { imports, handsOn };
}

function resolved(from: string, name: string): string | null {
  if (!/^[.~]/.test(name)) return null;
  const base = name.startsWith("~/") ? join(APP, name.slice(2)) : join(dirname(from), name);
  return [".ts", ".tsx", "/index.ts"].map((end) => base + end).find((file) => existsSync(file)) ?? null;
}

/**
 * The modules of the app that are loaded with some of its files, each with the one that asked for it: those they import, and those
 * import in turn. What is imported later or for its types does not count; a door counts for the names that are taken through it.
 */
export function loadedWith(files: readonly string[]): ReadonlyMap<string, string | null> {
  const known = new Map<string, Source>();
  const sourceOf = (file: string): Source => {
    const source = known.get(file) ?? read(file);
    known.set(file, source);
    return source;
  };
  const found = new Map<string, string | null>(files.map((file) => [join(APP, file), null]));
  const waiting = [...found.keys()];
  for (let file = waiting.pop(); file; file = waiting.pop()) {
    for (const { from, names } of sourceOf(file).imports) {
      const target = resolved(file, from);
      // A screen's action comes when something is done; what the server does never comes.
      if (!target || /\/action\.ts$|\.server\.ts$/.test(target)) continue;
      const { handsOn } = sourceOf(target);
      const through = names === "*" ? [...handsOn.values()] : names.flatMap((n) => handsOn.get(n) ?? []);
      const isOnlyDoor = names !== "*" && names.every((n) => handsOn.has(n));
      for (const next of [...through.map((t) => resolved(target, t)), ...(isOnlyDoor ? [] : [target])])
        if (next && !found.has(next)) {
          found.set(next, file);
          waiting.push(next);
        }
    }
  }
  return found;
}

/** The packages that modules ask for themselves when they are loaded. */
export const packagesOf = (loaded: Iterable<string>): ReadonlySet<string> =>
  new Set(
    [...loaded].flatMap((file) =>
      read(file).imports.flatMap(({ from }) => /^(@[^/]+\/[^/]+|[^.~@/][^/]*)/.exec(from)?.[1] ?? []),
    ),
  );
