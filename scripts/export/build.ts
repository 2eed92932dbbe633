import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { cpSync, existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { parseArgs } from "node:util";
import type { RouterContextProvider, ServerBuild } from "react-router";
import { DROP_IN_NONCE } from "../../app/offline/words";
import { writeWorker } from "../offline/worker-file";
import { fixedPaths, withPolicy } from "./page";

/**
 * Writes the app as a folder for any host of files, under any path: `npm run export -- --base /stars/ --to folder`. A forecast
 * service is set by ZENITHAR_EDR_URL as for the server, and asked by the browser.
 */
const root = new URL("../..", import.meta.url).pathname;
const { values } = parseArgs({
  options: { base: { type: "string", default: "/" }, to: { type: "string", default: "export" } },
});
const { base } = values;
const to = resolve(values.to);
const end = (why: string): never => {
  console.error(why);
  process.exit(1);
};
if (!/^\/(?:[A-Za-z0-9._~-]+\/)*$/.test(base))
  end(`--base ${base}: a path begins and ends with a slash, as /stars/ does`);
if (process.env["ZENITHAR_EDR_KEY"])
  end(
    "ZENITHAR_EDR_KEY: everybody could read the key in an export. Serve the app itself, or take a service without one.",
  );
// A folder that is somebody else's gets nothing.
if (existsSync(to) && readdirSync(to).length > 0 && !existsSync(join(to, "sw.js")))
  end(`${to}: holds something that is no export; choose an empty folder`);

const built = "node_modules/.cache/export";
Object.assign(process.env, {
  ZENITHAR_BASE: base,
  ZENITHAR_BUILD: built,
  ZENITHAR_STATIC: "yes",
  NODE_ENV: "production",
});
const run = (file: string, ...args: string[]) =>
  execFileSync(file, args, { cwd: root, stdio: ["ignore", "ignore", "inherit"] });
run("node_modules/.bin/react-router", "build");
run("node_modules/.bin/tsx", "scripts/licences/build.ts", `${built}/client`);

type AppEntry = ServerBuild["entry"]["module"] & { readonly requestContext: (nonce: string) => RouterContextProvider };
// Only now: React chooses by NODE_ENV what it is.
const { createRequestHandler } = await import("react-router");
const build = (await import(`${root}${built}/server/index.js`)) as ServerBuild;
const answer = await createRequestHandler({ ...build, ssr: false, prerender: [] }, "production")(
  new Request(`http://localhost${base}`),
  (build.entry.module as AppEntry).requestContext(DROP_IN_NONCE),
);
if (answer.status !== 200) end(`the page came out as ${answer.status}`);
const service = process.env["ZENITHAR_EDR_URL"];
const page = withPolicy(await answer.text(), service ? [new URL(service).origin] : []);

const client = join(root, built, "client");
// The address of the page names what it holds, so that a new version is fetched anew; a host of files does not look at it.
const version = createHash("sha256").update(page).digest("hex").slice(0, 16);
const { files, bytes } = await writeWorker({ root: client, base, shell: `${base}?version=${version}` });
// What else lies there, a repository or the host's own files, stays.
rmSync(join(to, "assets"), { recursive: true, force: true });
cpSync(client, to, { recursive: true });
const put = (name: string) => {
  mkdirSync(dirname(join(to, name)), { recursive: true });
  writeFileSync(join(to, name), page);
};
// Addresses that hang on somebody's own records have no file: hosts answer them with 404.html, which is the app as well.
for (const name of ["index.html", "404.html", ...fixedPaths(build.routes).map((path) => `${path}/index.html`)])
  put(name);
console.log(`${to}: ${files} files, ${(bytes / 1e6).toFixed(1)} MB, to be served under ${base}`);
process.exit(0);
