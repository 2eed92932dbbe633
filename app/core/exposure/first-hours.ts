import { surfaceBrightness, surfaceClass, type CatalogEntry } from "~/core/catalog";
import { isNarrow, type Channel } from "./channel";
import { channelAdvice, type ChannelAdvice } from "./channel-advice";
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

/** Hours on every panel to begin with, in the channels of `channelAdvice` (those wanted where the rig has none of them): rule of thumb of `suggestedHours`; L:R:G:B as 3:1:1:1, common practice. */
export function firstHours(
  entry: CatalogEntry,
  kit: { readonly focalRatio: number; readonly channels: readonly Channel[]; readonly skyMagPerArcsec2: number },
  { use, wanted }: ChannelAdvice = channelAdvice(entry, kit.channels),
): { readonly channel: Channel; readonly hours: number }[] {
  const { hours: hoursMin } = leastHours(entry);
  const { focalRatio, skyMagPerArcsec2 } = kit;
  return (use.length > 0 ? use : wanted).map((channel) => {
    const hours = suggestedHours({ hoursMin, focalRatio, skyMagPerArcsec2, isNarrow: isNarrow(channel) });
    const share = channel === "R" || channel === "G" || channel === "B" ? 1 / 3 : 1;
    return { channel, hours: Math.max(0.5, Math.round(hours * share * 2) / 2) };
  });
}
