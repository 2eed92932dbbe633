import { lightOf, type CatalogEntry } from "~/core/catalog";
import type { Channel } from "./channel";

/** How strongly an object shines in the three lines: 0 not at all, 3 strong. */
export interface LineStrengths {
  readonly ha: number;
  readonly oiii: number;
  readonly sii: number;
}

const NO_LINES: LineStrengths = { ha: 0, oiii: 0, sii: 0 };

/** What is assumed of an object of which nobody picked the strengths: by what its owner says, else by its kind. From memory, a guess. */
function assumedLines(entry: CatalogEntry): LineStrengths {
  switch (entry.light) {
    case "continuum":
      return NO_LINES;
    case "Ha":
      return { ha: 3, oiii: 0, sii: 0 };
    case "OIII":
      return { ha: 0, oiii: 3, sii: 0 };
    case "mixed":
      return { ha: 2, oiii: 2, sii: 0 };
    case undefined:
  }
  switch (entry.kind) {
    case "planetaryNebula":
    case "wolfRayetNebula":
      return { ha: 2, oiii: 3, sii: 0 };
    case "supernovaRemnant":
      return { ha: 3, oiii: 2, sii: 0 };
    case "emissionNebula":
      return { ha: 3, oiii: 1, sii: 0 };
    default:
      return NO_LINES;
  }
}

/** Line strengths of an object: as picked by hand, else assumed. */
export const linesOf = (entry: CatalogEntry): LineStrengths =>
  entry.curated ? (entry.curated.lines ?? NO_LINES) : assumedLines(entry);

const SHINES_BY_STARS: readonly CatalogEntry["kind"][] = ["galaxy", "reflectionNebula", "darkNebula", "openCluster"];
const MUCH_MORE_HA = 2;

/** Whether broad bands show something of an object that lines do not: stars, or dust that reflects them beside glowing hydrogen. */
function isBroad(entry: CatalogEntry, lines: LineStrengths): boolean {
  const light = lightOf(entry);
  if (light === "continuum") return true;
  return light === "mixed" && (SHINES_BY_STARS.includes(entry.kind) || lines.ha - lines.oiii >= MUCH_MORE_HA);
}

/** The channels an object is best shot in, and what a rig has of them. */
export interface ChannelAdvice {
  /** What it shines in, strongest first, whatever the rig has; a line of strength 0 is never among them. */
  readonly wanted: readonly Channel[];
  /** What this rig would take for that, strongest first; empty when it has nothing that shows the object. */
  readonly use: readonly Channel[];
  /** The channel it is judged in: the strongest at hand, else the strongest wanted. */
  readonly lead: Channel;
  /** What it shines in and the rig has nothing for. */
  readonly missing: readonly Channel[];
}

const LINE_CHANNELS = [
  ["OIII", "oiii"],
  ["Ha", "ha"],
  ["SII", "sii"],
] as const;

/** Chooses channels by an object's line strengths: hydrogen beside reflected light takes Ha and broad bands. */
export function channelAdvice(entry: CatalogEntry, atHand: readonly Channel[]): ChannelAdvice {
  const has = (c: Channel) => atHand.includes(c);
  const lines = linesOf(entry);
  const narrow = LINE_CHANNELS.filter(([, key]) => lines[key] >= 1)
    .sort((a, b) => lines[b[1]] - lines[a[1]])
    .map(([channel]): Channel => channel);
  const broad: readonly Channel[] = isBroad(entry, lines) ? ["L", "R", "G", "B"] : [];
  const wanted = [...narrow, ...(broad.length > 0 ? ["L" as const] : [])];
  const use: Channel[] = narrow.filter(has);
  const missing: Channel[] = [];
  // A dual-band filter passes both lines; a colour camera without one shows them, if faintly.
  const others = narrow.filter((c) => !has(c));
  if (others.some((c) => c !== "SII") && has("Dual")) use.push("Dual");
  else if (use.length === 0 && others.length > 0 && broad.length === 0 && has("Colour")) use.push("Colour");
  const covered = (c: Channel) => c !== "SII" && (use.includes("Dual") || use.includes("Colour"));
  missing.push(...others.filter((c) => !covered(c)));
  if (broad.length > 0) {
    const mine = broad.filter(has);
    if (mine.length > 0) use.push(...mine);
    else if (has("Colour")) use.push("Colour");
    else missing.push("L");
  }
  return { wanted, use, lead: use[0] ?? wanted[0] ?? "L", missing };
}
