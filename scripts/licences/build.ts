import { readFileSync, writeFileSync } from "node:fs";
import { licencesOf, licencesText } from "./collect";

/** Puts the notices and licences beside what is built: they travel with it. */
const root = new URL("../..", import.meta.url).pathname.replace(/\/$/, "");
const licences = licencesOf(root);
const built = process.argv[2] ?? "build/client";
writeFileSync(`${root}/${built}/licences.txt`, licencesText(readFileSync(`${root}/NOTICE.md`, "utf8"), licences));
console.log(`licences: ${licences.length} packages`);
