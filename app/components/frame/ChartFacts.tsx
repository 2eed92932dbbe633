import type { CatalogEntry } from "~/core/catalog";
import { separationDeg, type Equatorial } from "~/core/sky";
import { formatDeclination, formatRightAscension } from "~/core/notation";
import { entryFacts, entryTitle } from "../target-words";
import type { SkyData } from "../sky-chart/layers";

/** What lies at a point of the chart: a named star, or the smallest object around it. */
export function thingAt(
  at: Equatorial<"icrs">,
  reachDeg: number,
  objects: readonly CatalogEntry[],
  sky: SkyData | null,
): { readonly words: string; readonly entry: CatalogEntry | null } | null {
  const star = sky?.named.find(
    ([raDeg, decDeg]) =>
      Math.abs(decDeg - at.decDeg) < reachDeg && separationDeg(at, { frame: "icrs", raDeg, decDeg }) < reachDeg,
  );
  if (star) return { words: `${star[3]}, star of magnitude ${star[2].toFixed(1)}`, entry: null };
  const around = objects
    .filter((e) => {
      const reach = Math.max(reachDeg, (e.majorArcmin ?? 0) / 120);
      return (
        Math.abs(e.decDeg - at.decDeg) <= reach &&
        separationDeg(at, { frame: "icrs", raDeg: e.raDeg, decDeg: e.decDeg }) <= reach
      );
    })
    .sort((a, b) => (a.majorArcmin ?? 0) - (b.majorArcmin ?? 0));
  const entry = around[0];
  return entry ? { words: `${entryTitle(entry)}: ${entryFacts(entry)}`, entry } : null;
}

/** A position in words, for under the chart. */
export const positionWords = (at: Equatorial<"icrs">): string =>
  `${formatRightAscension(at.raDeg, 0)}, ${formatDeclination(at.decDeg)}`;
