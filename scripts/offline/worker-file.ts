import { createHash } from "node:crypto";
import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { build } from "esbuild";

const LEFT_OUT = /\.(?:br|gz|map|html)$|^sw\.js$/;

/** Vite puts a hash of the contents into these names. */
const HASHED = /^assets\//;

/** What the worker of a build knows of it. */
export interface WorkerOf {
  /** The folder of the build, where the worker is put. */
  readonly root: string;
  /** The path under which the folder is served, with its slashes. */
  readonly base: string;
  /** The address of the page that every address is answered with. */
  readonly shell: string;
}

/** How many files a worker keeps, and their bytes. */
export interface WorkerCounts {
  readonly files: number;
  readonly bytes: number;
}

/** Bundles the service worker with the list of all files of a build, so that the app opens without its server; gives what the list comes to. */
export async function writeWorker({ root, base, shell }: WorkerOf): Promise<WorkerCounts> {
  const names = readdirSync(root, { recursive: true, encoding: "utf8" })
    .filter((name) => !LEFT_OUT.test(name) && statSync(join(root, name)).isFile())
    .sort();
  const files = names.map((name) => {
    const sum = createHash("sha256").update(readFileSync(join(root, name)));
    const base64 = sum.copy().digest("base64");
    return {
      url: `${base}${name}`,
      revision: HASHED.test(name) ? null : sum.digest("hex").slice(0, 16),
      // Whatever a front between browser and server answers instead is refused, and nothing is kept.
      integrity: `sha256-${base64}`,
    };
  });
  await build({
    entryPoints: [new URL("../../app/offline/worker.ts", import.meta.url).pathname],
    outfile: join(root, "sw.js"),
    bundle: true,
    minify: true,
    format: "iife",
    target: "es2022",
    logLevel: "warning",
    define: {
      FILES: JSON.stringify(files),
      SHELL: JSON.stringify(shell),
      BASE: JSON.stringify(base),
      "process.env.NODE_ENV": '"production"',
    },
  });
  return { files: files.length, bytes: names.reduce((sum, name) => sum + statSync(join(root, name)).size, 0) };
}
