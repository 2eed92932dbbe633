import { isNebula, type CatalogEntry } from "~/core/catalog";
import type { Channel } from "~/core/exposure";
import { apparentVector, type NightSky } from "~/core/sky";
import { clamp } from "~/core/units";
import { channelSky, type ChannelSky } from "./channel-sky";
import type { Place } from "./place";
import type { NightSteps } from "./steps";
import { CAUSES, usableOf, walkTarget, type Cause } from "./target-night";

/** A target of the catalogue on one night from one place with one rig. */
export interface RankedTarget {
  /** Row in the catalogue. */
  readonly row: number;
  readonly usableMin: number;
  readonly worthMin: number;
  readonly channel: Channel;
  /** Largest loss in darkness; "none" when nothing is lost. */
  readonly mainLoss: Cause;
  readonly mainLossMin: number;
  /** Major axis over the frame's short side; null without a size. */
  readonly fill: number | null;
  /** Higher first; no unit. */
  readonly score: number;
}

/** What a ranking is made for. */
export interface RankOptions {
  readonly place: Place;
  readonly sky: NightSky;
  readonly steps: NightSteps;
  readonly frameShortArcmin: number;
  /** Channels the rig can record. */
  readonly channels: readonly Channel[];
}

/** The channel that suits an object best among those a rig has: lines for what shines in lines, the widest else. */
export function channelFor(entry: CatalogEntry, channels: readonly Channel[]): Channel {
  const light = entry.curated?.light ?? (isNebula(entry.kind) ? "Ha" : "continuum");
  const wish: readonly Channel[] =
    light === "continuum"
      ? ["L", "Colour"]
      : light === "OIII"
        ? ["OIII", "Dual", "Colour"]
        : light === "mixed"
          ? ["OIII", "Ha", "Dual", "Colour"]
          : ["Ha", "Dual", "Colour"];
  return wish.find((c) => channels.includes(c)) ?? channels[0] ?? "L";
}

/** 1 while the object fills a quarter to three quarters of the short side, falling to 0.2 when ten times smaller or twice larger. */
function framingFit(fill: number | null): number {
  if (fill === null) return 0.3;
  if (fill <= 0) return 0.2;
  const ratio = 1 / fill;
  if (ratio >= 1.3 && ratio <= 4) return 1;
  const off = ratio < 1.3 ? Math.log(1.3 / ratio) / Math.log(1.3 / 0.5) : Math.log(ratio / 4) / Math.log(10 / 4);
  return clamp(1 - 0.8 * off, 0.2, 1);
}

/**
 * Ranks a catalogue: static rank × framing fit × worth of the night, a proposal of this project (docs/decisions/0003).
 * Objects that never become usable are left out.
 */
export function rankCatalog(entries: readonly CatalogEntry[], options: RankOptions): RankedTarget[] {
  const { place, sky, steps, frameShortArcmin, channels } = options;
  const skies = new Map<Channel, ChannelSky>();
  const buffer = { cause: new Uint8Array(steps.count), worth: new Float32Array(steps.count) };
  const lost = new Int32Array(CAUSES.length);
  const ranked: RankedTarget[] = [];
  const lowestDec = Math.max(0, Math.min(place.minAltitudeDeg, 90));
  entries.forEach((entry, row) => {
    // Upper culmination below the lowest altitude (catalogue declinations are of J2000: precession to date is under 0.2°, the margin 0.5°).
    if (90 - Math.abs(place.latitudeDeg - entry.decDeg) < lowestDec - 0.5) return;
    const channel = channelFor(entry, channels);
    let cs = skies.get(channel);
    if (!cs) skies.set(channel, (cs = channelSky(place, steps, channel)));
    const walk = walkTarget(
      steps,
      cs,
      apparentVector(sky, { frame: "icrs", raDeg: entry.raDeg, decDeg: entry.decDeg }),
      buffer,
    );
    const { usableMin, worthMin } = usableOf(steps, walk);
    if (usableMin === 0) return;
    lost.fill(0);
    for (let i = 0; i < steps.count; i++) lost[walk.cause[i]!]!++;
    let main = 0;
    for (let c = 2; c < lost.length; c++) if (lost[c]! > 0 && (main === 0 || lost[c]! > lost[main]!)) main = c;
    const fill = entry.majorArcmin === null ? null : entry.majorArcmin / frameShortArcmin;
    const score = (entry.rank + 5) * framingFit(fill) * Math.sqrt(worthMin / 60);
    ranked.push({
      row,
      usableMin,
      worthMin,
      channel,
      mainLoss: CAUSES[main]!,
      mainLossMin: main === 0 ? 0 : lost[main]! * steps.stepMin,
      fill,
      score,
    });
  });
  return ranked.sort((a, b) => b.score - a.score || a.row - b.row);
}
