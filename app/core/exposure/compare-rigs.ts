import { opticsOf } from "~/core/framing";
import { subAdvice } from "./advice";
import type { Channel } from "./channel";
import { lightModel, pixelModel, snr2Rate } from "./light-rates";
import { USUAL_LIGHT, type ObjectLight } from "./object-light";
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

const SEEING_ARCSEC = 3; // sub lengths hardly depend on it

/** Of an object's light what a channel is taken for: its line, or all but lines. */
function lightIn(channel: Channel, light: ObjectLight): ObjectLight {
  if (channel === "Dual") return { ...light, magPerArcsec2: null };
  const only = { ha: 0, oiii: 0, sii: 0, magPerArcsec2: null };
  if (channel === "Ha") return { ...only, ha: light.ha };
  if (channel === "OIII") return { ...only, oiii: light.oiii };
  if (channel === "SII") return { ...only, sii: light.sii };
  return { ...light, magPerArcsec2: light.magPerArcsec2 ?? USUAL_LIGHT.magPerArcsec2 };
}

/**
 * How fast a kit gains depth in a channel, SNR² per square arcsecond and second at its zenith: share × O²/(O + S + Dk + R²/t) over the
 * area of a pixel, subs as advised (MATHS 4.4, 6.2). An object that nobody knows is a usual faint one. Null when no filter of it
 * records the channel.
 */
export function depthRate(
  channel: Channel,
  kit: KitUnderSky,
  light: ObjectLight = USUAL_LIGHT,
): { readonly rate: number; readonly through: string } | null {
  const { rig, skyMagPerArcsec2 } = kit;
  const { pixelScaleArcsecPerPx } = opticsOf(rig);
  const found = kit.filters.flatMap((filter) => {
    const pixel = lightFor(channel, rig, filter);
    if (!pixel) return [];
    const { subSec } = subAdvice({ rig, filter, skyMagPerArcsec2, seeingArcsec: SEEING_ARCSEC, protectedMag: null });
    const at = { rig, filter, skyMagPerArcsec2 };
    const kinds = channel === "Dual" ? lightModel(at, subSec).kinds : [pixelModel(at, pixel, subSec)];
    const rate = snr2Rate({ kinds, pixelScaleArcsecPerPx }, lightIn(channel, light)) / pixelScaleArcsecPerPx ** 2;
    return rate > 0 ? [{ rate, through: filter.name }] : []; // a filter that misses the line records nothing of it
  });
  return found.length === 0 ? null : found.reduce((best, f) => (f.rate > best.rate ? f : best));
}

/**
 * What another kit would need for a picture of a given size that the first one takes: each under its own sky, channel by channel with
 * the filters it really has. A colour camera takes R, G and B (or, behind a dual-band filter, both lines) at once;
 * its hours count as luminance for nobody. Lost corners are not counted; sub length counts for the disk only.
 */
export function compareRig(at: {
  readonly first: KitUnderSky;
  readonly other: KitUnderSky;
  readonly goals: readonly { readonly channel: Channel; readonly hoursPerPanel: number; readonly subSec: number }[];
  /** What the object shines with; absent = as usual. */
  readonly light?: ObjectLight;
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
    const [mine, theirs] = [depthRate(channel, at.first, at.light), depthRate(channel, at.other, at.light)];
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
