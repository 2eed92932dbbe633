import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";

/** Writes .br and .gz beside every text and binary asset of the build, so that the server never compresses them. */
const ROOT = new URL("../build/client", import.meta.url).pathname;
const WORTHWHILE = /\.(js|css|json|tsv|bin|svg|webmanifest|fits)$/;

for (const name of readdirSync(ROOT, { recursive: true, encoding: "utf8" })) {
  const path = join(ROOT, name);
  if (name === "sw.js" || !WORTHWHILE.test(name) || !statSync(path).isFile()) continue; // the server writes into it
  const bytes = readFileSync(path);
  writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
  writeFileSync(
    `${path}.br`,
    brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: bytes.length > 300_000 ? 9 : 11 } }),
  );
}
