import { lightOf, type CatalogEntry } from "~/core/catalog";
import { isNarrow, type Channel } from "./channel";

/** Channels beside those of a picture that it gains by, why, and the hours a panel to begin with. */
export interface ChannelOffer {
  readonly why: "hydrogen" | "stars" | "reflected";
  readonly channels: readonly { readonly channel: Channel; readonly hours: number }[];
}

const STARS_HOURS = 0.5; // a channel, for the colours of stars beside lines; common practice
const HYDROGEN_SHARE = 1 / 4; // of the broad light of a galaxy, for its hydrogen regions; common practice
const BRIGHT_CLASS = 2;

const toHalf = (hours: number) => Math.max(0.5, Math.round(hours * 2) / 2);

/**
 * What could be shot beside the channels that a picture has: hydrogen regions of bright galaxies, natural stars beside lines, the
 * reflected light of bright nebulae. `first` = hours to begin with by channel, `have` = channels that it has. MATHS 4.8.
 */
export function channelOffers(
  entry: CatalogEntry,
  atHand: readonly Channel[],
  have: readonly Channel[],
  first: Readonly<Partial<Record<Channel, number>>>,
): ChannelOffer[] {
  const { curated, kind } = entry;
  const missing = (some: readonly Channel[]) => some.filter((c) => atHand.includes(c) && !have.includes(c));
  const broad = (["L", "R", "G", "B", "Colour"] as const).filter((c) => atHand.includes(c));
  const colours = missing(atHand.includes("R") ? ["R", "G", "B"] : ["Colour"]);
  const offers: ChannelOffer[] = [];
  if (kind === "galaxy" && curated?.hasHydrogen) {
    const all = broad.reduce((sum, c) => sum + (first[c] ?? 0), 0);
    const [line] = missing(atHand.includes("Ha") ? ["Ha"] : ["Dual"]);
    if (line && all > 0)
      offers.push({ why: "hydrogen", channels: [{ channel: line, hours: toHalf(all * HYDROGEN_SHARE) }] });
  }
  const isReflecting =
    kind === "emissionNebula" && curated !== null && curated.sbClass <= BRIGHT_CLASS && lightOf(entry) === "mixed";
  const takesLinesOnly = have.length > 0 && have.every(isNarrow);
  if (isReflecting && takesLinesOnly && missing(broad).length > 0)
    offers.push({
      why: "reflected",
      channels: missing(broad).map((channel) => ({ channel, hours: first[channel] ?? STARS_HOURS })),
    });
  else if (takesLinesOnly && colours.length > 0)
    offers.push({
      why: "stars",
      channels: colours.map((channel) => ({ channel, hours: channel === "Colour" ? 2 * STARS_HOURS : STARS_HOURS })),
    });
  return offers;
}
