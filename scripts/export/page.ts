import { createHash } from "node:crypto";
import { pagePolicy } from "../../app/offline/policy";
import { DROP_IN_NONCE } from "../../app/offline/words";

const INLINE = /<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g;

/**
 * The page of an export with its policy in itself, since nobody sends it as a header. Its scripts are named by their sums: a nonce
 * that never changes would let any script in. Style sheets that dialogs put in while they are open have one, there it does no harm.
 */
export function withPolicy(page: string, reaches: readonly string[]): string {
  const sums = [...page.matchAll(INLINE)].map(([, script = ""]) => {
    if (script.includes(DROP_IN_NONCE)) throw new Error("a script of the page holds the nonce: its sum would not stay");
    return `'sha256-${createHash("sha256").update(script).digest("base64")}'`;
  });
  const may = { scripts: [...new Set(sums)], styles: [`'nonce-${DROP_IN_NONCE}'`], reaches };
  const policy = Object.entries(pagePolicy(may))
    .map(([directive, sources]) => `${directive} ${sources.join(" ")}`)
    .join("; ");
  const head = `<meta http-equiv="Content-Security-Policy" content="${policy}"/><meta name="referrer" content="no-referrer"/>`;
  // After the character set, which must stand at the very top.
  const at = page.indexOf("<meta ", page.indexOf("<meta ") + 1);
  if (at === -1) throw new Error("the page has no head");
  return page.slice(0, at) + head + page.slice(at);
}

/** What of a server's build says which addresses there are. */
type Routes = Readonly<Record<string, { readonly parentId?: string; readonly path?: string } | undefined>>;

/** The addresses of an app that are the same for everybody, without the slash before them: a file of their own each, so that a host answers them. */
export function fixedPaths(routes: Routes): string[] {
  const pathOf = (id: string | undefined): string => {
    const route = id === undefined ? undefined : routes[id];
    return route ? [pathOf(route.parentId), route.path ?? ""].filter((part) => part !== "").join("/") : "";
  };
  const paths = Object.keys(routes).map(pathOf);
  return [...new Set(paths)].filter((path) => path !== "" && !/[:*]/.test(path)).sort();
}
