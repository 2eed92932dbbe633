import { opticsOf } from "~/core/framing";
import { isNarrow, type Channel } from "./channel";
import { lightFor } from "./pixel";
import type { Filter, Rig } from "./rig";

/** A rig with the filters it really has, under the sky it stands under. */
export interface KitUnderSky {
  readonly rig: Rig;
  readonly filters: readonly Filter[];
  /** Zenith sky, V. */
  readonly skyMagPerArcsec2: number;
}

/** What a channel of the picture takes with a rig. */
export interface ChannelHours {
  readonly channel: Channel;
  /** Of one panel, exposure; null = the rig has nothing for this channel. */
  readonly hoursPerPanel: number | null;
  /** Name of the filter it is taken through; "" without one. */
  readonly through: string;
}

/** One rig set beside another for the same picture: the same area of sky to the same depth per area, channel by channel. */
export interface RigComparison {
  readonly columns: number;
  readonly rows: number;
  readonly channels: readonly ChannelHours[];
  /** Channels that the rig has nothing for: with any, it is not to be ranked. */
  readonly missing: readonly Channel[];
  /** Exposure of one panel, channels that one filter takes at once counted once; null with a channel missing. */
  readonly hoursPerPanel: number | null;
  /** Over all panels. */
  readonly hours: number | null;
  readonly pixelScaleArcsecPerPx: number;
  /** How many times finer than the first rig's; over 1 = finer. Stops at the seeing. */
  readonly detail: number;
  /** Part of its frame or mosaic that the picture fills. */
  readonly filled: number;
  readonly megabytes: number;
}

/** Light per area and time of a bare camera: aperture area × throughput × quantum efficiency, m². */
export const lightGrasp = (rig: Rig): number => opticsOf(rig).apertureAreaM2 * rig.throughput * rig.quantumEfficiency;

/**
 * How fast a kit gains depth in a channel, SNR² per area and time up to one constant: A η × dye × share of pixels, × Δλ for broad
 * bands and ÷ Δλ for lines, over the sky's flux (MATHS 1.8, 4.3, 4.4, 4.7). Null when no filter of it records the channel.
 */
export function depthRate(
  channel: Channel,
  kit: KitUnderSky,
): { readonly rate: number; readonly through: string } | null {
  const found = kit.filters.flatMap((filter) => {
    const light = lightFor(channel, kit.rig, filter);
    if (!light) return [];
    const width = isNarrow(channel) ? 1 / light.bandwidthNm : light.bandwidthNm;
    const rate = lightGrasp(kit.rig) * filter.transmission * light.dye * light.share * width;
    return [{ rate: rate * 10 ** (0.4 * kit.skyMagPerArcsec2), through: filter.name }];
  });
  return found.length === 0 ? null : found.reduce((best, f) => (f.rate > best.rate ? f : best));
}

/**
 * What another kit would need for a picture of a given size that the first one takes: sky-limited, each under its own sky, channel
 * by channel with the filters it really has. A colour camera takes R, G and B (or, behind a dual-band filter, both lines) at once;
 * its hours count as luminance for nobody. Read noise and lost corners are not counted; sub length counts for the disk only.
 */
export function compareRig(at: {
  readonly first: KitUnderSky;
  readonly other: KitUnderSky;
  readonly goals: readonly { readonly channel: Channel; readonly hoursPerPanel: number; readonly subSec: number }[];
  /** Of the picture, on the plane. */
  readonly widthArcmin: number;
  readonly heightArcmin: number;
  readonly overlap: number;
  /** Whether the other camera may stand across; absent = yes. */
  readonly mayTurn?: boolean;
}): RigComparison {
  const [first, other] = [opticsOf(at.first.rig), opticsOf(at.other.rig)];
  const field = { width: other.planeWidthArcmin, height: other.planeHeightArcmin };
  const along = (length: number, side: number) =>
    length <= side * 1.0001 ? 1 : Math.ceil((length - side) / (side * (1 - at.overlap)) - 1e-6) + 1;
  // The camera may stand either way: the one with fewer panels counts.
  const upright = { columns: along(at.widthArcmin, field.width), rows: along(at.heightArcmin, field.height) };
  const turned = { columns: along(at.widthArcmin, field.height), rows: along(at.heightArcmin, field.width) };
  const isTurned = at.mayTurn !== false && turned.columns * turned.rows < upright.columns * upright.rows;
  const { columns, rows } = isTurned ? turned : upright;
  const channels = at.goals.map(({ channel, hoursPerPanel }): ChannelHours => {
    const [mine, theirs] = [depthRate(channel, at.first), depthRate(channel, at.other)];
    return theirs && mine
      ? { channel, hoursPerPanel: (hoursPerPanel * mine.rate) / theirs.rate, through: theirs.through }
      : { channel, hoursPerPanel: null, through: "" };
  });
  const missing = channels.flatMap((c) => (c.hoursPerPanel === null ? [c.channel] : []));
  // What one filter takes at once needs the longest of its channels, not their sum.
  const byFilter = new Map<string, number>();
  let subs = 0;
  for (const [i, c] of channels.entries()) {
    if (c.hoursPerPanel === null) continue;
    const before = byFilter.get(c.through) ?? 0;
    const isAtOnce = at.other.rig.isColour && before > 0;
    const hours = isAtOnce ? Math.max(before, c.hoursPerPanel) : before + c.hoursPerPanel;
    byFilter.set(c.through, hours);
    subs += ((hours - before) * 3600) / at.goals[i]!.subSec;
  }
  const hoursPerPanel = missing.length > 0 ? null : [...byFilter.values()].reduce((sum, h) => sum + h, 0);
  const { widthPx, heightPx, binning } = at.other.rig.sensor;
  const covered = columns * rows * field.width * field.height;
  return {
    columns,
    rows,
    channels,
    missing,
    hoursPerPanel,
    hours: hoursPerPanel === null ? null : columns * rows * hoursPerPanel,
    pixelScaleArcsecPerPx: other.pixelScaleArcsecPerPx,
    detail: first.pixelScaleArcsecPerPx / other.pixelScaleArcsecPerPx,
    filled: Math.min(1, (at.widthArcmin * at.heightArcmin) / covered),
    megabytes: (columns * rows * subs * (widthPx / binning) * (heightPx / binning) * 2) / 1e6,
  };
}
