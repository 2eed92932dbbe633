import { lightOf, surfaceBrightness, surfaceClass, type CatalogEntry } from "~/core/catalog";
import { isNarrow, type Channel } from "./channel";
import { suggestedHours } from "./suggest";

/** Least hours by class of surface brightness: the median of the 301 hand-picked targets of each class. */
const HOURS_OF_CLASS = [1, 3, 5, 6, 8, 15] as const;
const HOURS_UNKNOWN = 4; // a first look; common practice, no source
const HOURS_OF_STARS = 1; // open clusters and double stars: the median of the hand-picked clusters, rounded up

/** Least hours at f/5 under 20 mag/arcsec², and where the figure comes from. */
export interface LeastHours {
  readonly hours: number;
  readonly from: "handPicked" | "surface" | "stars" | "unknown";
}

/** Least hours of an object: its own figure when hand-picked, else by its surface brightness, else a first look. Good to a factor of two. */
export function leastHours(entry: CatalogEntry): LeastHours {
  if (entry.curated) return { hours: entry.curated.hoursMin, from: "handPicked" };
  const surface = surfaceBrightness(entry);
  if (surface !== null) return { hours: HOURS_OF_CLASS[surfaceClass(surface) - 1] ?? HOURS_UNKNOWN, from: "surface" };
  if (entry.kind === "openCluster" || entry.kind === "doubleStar") return { hours: HOURS_OF_STARS, from: "stars" };
  return { hours: HOURS_UNKNOWN, from: "unknown" };
}

/** Channels to begin with, of those at hand: lines for what shines in lines, luminance or colour for the rest. */
export function firstChannels(entry: CatalogEntry, atHand: readonly Channel[]): Channel[] {
  const has = (c: Channel) => atHand.includes(c);
  const lines = entry.curated?.lines;
  const light = lightOf(entry);
  const isLine = lines ? Math.max(lines.ha, lines.oiii, lines.sii) >= 1 : light !== "continuum";
  const isUsual = (c: Channel) => c === light || (c !== "SII" && (light === "mixed" || entry.light === undefined));
  const narrow = (["Ha", "OIII", "SII"] as const).filter(
    (c) => has(c) && (lines ? lines[c === "Ha" ? "ha" : c === "OIII" ? "oiii" : "sii"] >= 1 : isUsual(c)),
  );
  if (isLine && narrow.length > 0) return narrow;
  if (isLine && has("Dual")) return ["Dual"];
  const broad = (["L", "R", "G", "B"] as const).filter(has);
  return broad.length > 0 ? broad : has("Colour") ? ["Colour"] : atHand.slice(0, 1);
}

/** Hours on every panel to begin with, channel by channel: rule of thumb of `suggestedHours`; L:R:G:B as 3:1:1:1, common practice. */
export function firstHours(
  entry: CatalogEntry,
  kit: { readonly focalRatio: number; readonly channels: readonly Channel[]; readonly skyMagPerArcsec2: number },
): { readonly channel: Channel; readonly hours: number }[] {
  const { hours: hoursMin } = leastHours(entry);
  const { focalRatio, skyMagPerArcsec2 } = kit;
  return firstChannels(entry, kit.channels).map((channel) => {
    const hours = suggestedHours({ hoursMin, focalRatio, skyMagPerArcsec2, isNarrow: isNarrow(channel) });
    const share = channel === "R" || channel === "G" || channel === "B" ? 1 / 3 : 1;
    return { channel, hours: Math.max(0.5, Math.round(hours * share * 2) / 2) };
  });
}
