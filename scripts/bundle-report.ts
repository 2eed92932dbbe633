import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";

/** What a build sends: every script and style by size, and what the first page asks for. Run after `npm run build`. */
const assets = new URL("../build/client/assets", import.meta.url).pathname;
const kb = (bytes: number) => `${(bytes / 1000).toFixed(1).padStart(7)} kB`;

const rows = readdirSync(assets)
  .filter((name) => /\.(js|css)$/.test(name))
  .map((name) => {
    const bytes = readFileSync(join(assets, name));
    return {
      name,
      raw: statSync(join(assets, name)).size,
      gzip: gzipSync(bytes).length,
      brotli: brotliCompressSync(bytes).length,
    };
  })
  .sort((a, b) => b.gzip - a.gzip);

console.log(`${"file".padEnd(48)}     raw        gzip      brotli`);
for (const r of rows.slice(0, 30))
  console.log(`${r.name.slice(0, 48).padEnd(48)} ${kb(r.raw)} ${kb(r.gzip)} ${kb(r.brotli)}`);
const sum = (of: (r: (typeof rows)[number]) => number) => rows.reduce((total, r) => total + of(r), 0);
console.log(
  `${`all ${rows.length} files`.padEnd(48)} ${kb(sum((r) => r.raw))} ${kb(sum((r) => r.gzip))} ${kb(sum((r) => r.brotli))}`,
);

/** What a page loads before it is drawn: the entry and its routes with their loaders, and all these import at once. */
function needed(manifest: Manifest, routes: readonly string[]): Set<string> {
  const files = new Set<string>();
  const take = (path: string | undefined): void => {
    const name = path?.slice(path.lastIndexOf("/") + 1);
    if (!name || files.has(name)) return;
    files.add(name);
    const code = readFileSync(join(assets, name), "utf8");
    for (const [, next] of code.matchAll(/(?:from|import)"\.\/([^"]+\.js)"/g)) take(next);
  };
  take(manifest.entry.module);
  for (const id of routes) {
    const route = manifest.routes[id];
    [route?.module, route?.clientLoaderModule, route?.hydrateFallbackModule].forEach(take);
  }
  return files;
}
interface Part {
  readonly module: string;
  readonly clientLoaderModule?: string;
  readonly hydrateFallbackModule?: string;
}
interface Manifest {
  readonly entry: Part;
  readonly routes: Readonly<Record<string, Part>>;
}
const manifestName = readdirSync(assets).find((name) => name.startsWith("manifest-"));
if (manifestName) {
  const text = readFileSync(join(assets, manifestName), "utf8");
  const manifest = JSON.parse(text.slice(text.indexOf("=") + 1).replace(/;\s*$/, "")) as Manifest;
  for (const [page, routes] of [
    ["Tonight", ["root", "screens/shell/route", "screens/tonight/route"]],
    ["Targets", ["root", "screens/shell/route", "screens/targets/route"]],
    ["Log", ["root", "screens/shell/route", "screens/log/route"]],
  ] as const) {
    const names = needed(manifest, routes);
    const mine = rows.filter((r) => names.has(r.name));
    console.log(
      `${`first page ${page}, ${mine.length} scripts`.padEnd(48)} ${kb(mine.reduce((s, r) => s + r.raw, 0))} ${kb(mine.reduce((s, r) => s + r.gzip, 0))} ${kb(mine.reduce((s, r) => s + r.brotli, 0))}`,
    );
  }
}
