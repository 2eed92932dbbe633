import { fixed } from "~/components/numbers";
import type { SkyData } from "~/core/catalog";
import { starAt, starsWithin, type CatalogEntry } from "~/core/catalog";
import { formatDeclination, formatRightAscension } from "~/core/notation";
import { separationDeg, type Equatorial } from "~/core/sky";
import { starName } from "~/drawing";
import { entryFacts, entryTitle } from "~/components/words/target-words";

/** What a chart shows, as far as words go. */
export interface Charted {
  readonly objects: readonly CatalogEntry[];
  readonly sky: SkyData | null;
  /** Faintest star drawn, mag. */
  readonly faintest: number;
}

/** Something on a chart. */
export interface ChartThing {
  readonly words: string;
  /** More about it, for who asks. */
  readonly facts: string;
  /** An object of the catalogue; null for a star. */
  readonly entry: CatalogEntry | null;
}

/** What lies at a point of the chart: the nearest star drawn within reach, else the smallest object around it. */
export function thingAt(at: Equatorial<"icrs">, reachDeg: number, chart: Charted): ChartThing | null {
  return starUnder(at, reachDeg, chart) ?? objectAt(at, reachDeg, chart.objects);
}

function starUnder(at: Equatorial<"icrs">, reachDeg: number, { sky, faintest }: Charted): ChartThing | null {
  if (!sky) return null;
  const [nearest] = starsWithin(sky.stars, { ...at, radiusDeg: reachDeg, faintest })
    .map((row) => ({ row, star: starAt(sky.stars.stars, row) }))
    .map((s) => ({ ...s, awayDeg: separationDeg(at, s.star.at) }))
    .filter(({ awayDeg }) => awayDeg <= reachDeg)
    .sort((a, b) => a.awayDeg - b.awayDeg);
  if (!nearest) return null;
  const { row, star } = nearest;
  const name = starName(sky, row);
  const hip = `HIP ${star.hip}`;
  return {
    words: `${name}, star of magnitude ${fixed(star.magnitude, 1)}`,
    facts: [
      name === hip ? null : hip,
      Number.isNaN(star.colour) ? "colour unknown" : `B−V ${fixed(star.colour, 2)} mag, ${colourWord(star.colour)}`,
      positionWords(star.at),
    ]
      .filter((x) => x !== null)
      .join(" · "),
    entry: null,
  };
}

const colourWord = (colour: number) =>
  colour < 0.15 ? "bluish" : colour < 0.85 ? "white to yellowish" : colour < 1.35 ? "yellow-orange" : "orange-red";

function objectAt(at: Equatorial<"icrs">, reachDeg: number, objects: readonly CatalogEntry[]): ChartThing | null {
  const [entry] = objects
    .filter((e) => {
      const reach = Math.max(reachDeg, (e.majorArcmin ?? 0) / 120);
      return Math.abs(e.at.decDeg - at.decDeg) <= reach && separationDeg(at, e.at) <= reach;
    })
    .sort((a, b) => (a.majorArcmin ?? 0) - (b.majorArcmin ?? 0));
  if (!entry) return null;
  return {
    words: `${entryTitle(entry)}: ${entryFacts(entry)}`,
    facts: [
      entry.magnitude === null ? null : `magnitude ${fixed(entry.magnitude, 1)}`,
      entry.positionAngleDeg === null ? null : `long axis at PA ${fixed(entry.positionAngleDeg)}°`,
      positionWords(entry.at),
      entry.aliases.length > 0 ? `also ${entry.aliases.slice(0, 4).join(", ")}` : null,
    ]
      .filter((x) => x !== null)
      .join(" · "),
    entry,
  };
}

/** A position in words, for under the chart. */
export const positionWords = (at: Equatorial<"icrs">): string =>
  `${formatRightAscension(at.raDeg, 0)}, ${formatDeclination(at.decDeg)}`;
