import { readFileSync } from "node:fs";
import { unpackCatalog, type PackedCatalog } from "~/core/catalog";
import { RULES } from "./rules";
import { KITS, NIGHTS, SITES } from "./sites";
import { flaggedRows, sweepOne } from "./sweep";

/** Goes through the first ten targets of many sites, rigs and nights, and reports rows that a practitioner would cross out: npm run sweep. */
const unpacked = unpackCatalog(JSON.parse(readFileSync("app/data/objects.json", "utf8")) as PackedCatalog);
if (!unpacked.ok) throw new Error("data does not unpack");
const isLong = process.argv.includes("--rows");

const byRule = new Map<string, number>(RULES.map((r) => [r.name, 0]));
let [rows, flagged, empty] = [0, 0, 0];
for (const place of SITES) {
  let [here, hereFlagged] = [0, 0];
  for (const kit of KITS)
    for (const night of NIGHTS) {
      const swept = sweepOne(unpacked.value, place, kit, night);
      here += swept.list.rows.length;
      hereFlagged += flaggedRows(swept);
      if (swept.isEmpty) empty++;
      for (const f of swept.flags) byRule.set(f.rule, (byRule.get(f.rule) ?? 0) + 1);
      if (isLong) {
        console.log(`\n${place.name} · ${kit.name} · ${night}`);
        for (const { entry, line, place: at } of swept.list.rows) {
          const broken = swept.flags.filter((f) => f.row === at).map((f) => f.rule);
          console.log(`  ${at + 1} ${entry.id} ${entry.name}, ${line.channel}, ${(line.leftWorthMin / 60).toFixed(1)} of ${(line.moonlessWorthMin / 60).toFixed(1)} h, needs ${line.needHours} h${broken.length > 0 ? `  <- ${broken.join("; ")}` : ""}`); // prettier-ignore
        }
      }
    }
  rows += here;
  flagged += hereFlagged;
  console.log(`${place.name.padEnd(24)} ${String(here).padStart(4)} rows, ${((100 * hereFlagged) / Math.max(1, here)).toFixed(1)} of 100 flagged`); // prettier-ignore
}
console.log(`\n${rows} rows of ${SITES.length * KITS.length * NIGHTS.length} lists, ${empty} lists empty`);
for (const [rule, count] of [...byRule].sort((a, b) => b[1] - a[1]))
  console.log(`${String(count).padStart(5)}  ${rule}`);
console.log(`${((100 * flagged) / rows).toFixed(1)} of 100 rows flagged`);
