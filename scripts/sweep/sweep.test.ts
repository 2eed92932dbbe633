import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { unpackCatalog, type PackedCatalog } from "~/core/catalog";
import { KITS, SITES } from "./sites";
import { flaggedRows, sweepOne } from "./sweep";

const unpacked = unpackCatalog(JSON.parse(readFileSync("app/data/objects.json", "utf8")) as PackedCatalog);
if (!unpacked.ok) throw new Error("data does not unpack");
const entries = unpacked.value;

it("leaves no list empty, under a full Moon and near midsummer neither, and flags fewer than 5 of 100 rows (npm run sweep goes through all)", () => {
  let [rows, flagged] = [0, 0];
  const seen: string[] = [];
  for (const [s, place] of SITES.entries())
    for (const [k, kit] of KITS.entries()) {
      // A sixth of the lists of the whole sweep, each site and rig in turn.
      if ((s + k) % 3 !== 0) continue;
      const swept = sweepOne(entries, place, kit, s % 2 === 0 ? "2026-12-23" : "2027-06-05");
      expect(swept.isEmpty, `${place.name}, ${kit.name}`).toBe(false);
      rows += swept.list.rows.length;
      flagged += flaggedRows(swept);
      seen.push(...swept.flags.map((f) => `${place.name}, ${kit.name}, ${swept.list.rows[f.row]!.entry.id}: ${f.rule}`)); // prettier-ignore
    }
  expect(rows).toBeGreaterThan(300);
  expect((100 * flagged) / rows, seen.join("\n")).toBeLessThan(5);
});
