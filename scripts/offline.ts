import { createHash } from "node:crypto";
import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { build } from "esbuild";
import { SHELL_URL } from "../app/offline/words";

/** Bundles the service worker with the list of all files of the build, so that the app opens without its server. */
const ROOT = new URL("../build/client", import.meta.url).pathname;
const LEFT_OUT = /\.(?:br|gz|map)$|^sw\.js$/;
/** Vite puts a hash of the contents into these names. */
const HASHED = /^assets\//;

const names = readdirSync(ROOT, { recursive: true, encoding: "utf8" })
  .filter((name) => !LEFT_OUT.test(name) && statSync(join(ROOT, name)).isFile())
  .sort();
const files = names.map((name) => {
  const sum = createHash("sha256").update(readFileSync(join(ROOT, name)));
  const base64 = sum.copy().digest("base64");
  return {
    url: `/${name}`,
    revision: HASHED.test(name) ? null : sum.digest("hex").slice(0, 16),
    // Whatever a front between browser and server answers instead is refused, and nothing is kept.
    integrity: `sha256-${base64}`,
  };
});

await build({
  entryPoints: [new URL("../app/offline/worker.ts", import.meta.url).pathname],
  outfile: join(ROOT, "sw.js"),
  bundle: true,
  minify: true,
  format: "iife",
  target: "es2022",
  logLevel: "warning",
  define: {
    FILES: JSON.stringify(files),
    SHELL: JSON.stringify(SHELL_URL),
    "process.env.NODE_ENV": '"production"',
  },
});
const bytes = names.reduce((sum, name) => sum + statSync(join(ROOT, name)).size, 0);
console.log(`offline: ${files.length} files, ${(bytes / 1e6).toFixed(1)} MB`);
