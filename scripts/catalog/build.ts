import { mkdirSync, writeFileSync } from "node:fs";
import { gzipSync } from "node:zlib";
import { packCatalog, packStars } from "~/core/catalog";
import { readBorders, readLines, readStarNames, readStars } from "./base";
import { mergeCatalog } from "./merge";

const OUT = new URL("../../app/data/", import.meta.url).pathname;

function write(name: string, content: string | Uint8Array): void {
  writeFileSync(`${OUT}${name}`, content);
  console.log(`${name}: ${Buffer.byteLength(content)} bytes, ${gzipSync(content, { level: 9 }).length} gzipped`);
}

mkdirSync(OUT, { recursive: true });
const entries = mergeCatalog();
console.log(`${entries.length} objects, ${entries.filter((e) => e.majorArcmin === null).length} without a size`);
write("objects.json", JSON.stringify(packCatalog(entries)));

const stars = readStars().sort((a, b) => a.magnitude - b.magnitude || a.hip - b.hip);
console.log(`${stars.length} stars, ${stars.filter((s) => s.magnitude < 6).length} brighter than 6`);
write("stars.bin", packStars(stars));

const names = readStarNames();
const named = stars.map((s) => {
  const n = names[String(s.hip)];
  const label = n ? n.name || (n.bayer && `${n.bayer} ${n.c}`) || (n.flam && `${n.flam} ${n.c}`) || "" : "";
  return [Number(s.raDeg.toFixed(4)), s.decDeg, s.magnitude, label, s.hip] as const;
});
write("named-stars.json", JSON.stringify(named.filter((b) => b[3] !== "")));
write(
  "figures.json",
  JSON.stringify(readLines().map((run) => run.map(([ra, dec]) => [Number(ra.toFixed(3)), Number(dec.toFixed(3))]))),
);
write("borders.json", JSON.stringify(readBorders()));
