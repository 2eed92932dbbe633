import { opticsOf } from "~/core/framing";
import type { Rig } from "./rig";

/** One rig set beside another for the same picture: the same area of sky to the same depth per area. */
export interface RigComparison {
  readonly columns: number;
  readonly rows: number;
  /** Exposure over all panels. */
  readonly hours: number;
  /** Of one panel. */
  readonly hoursPerPanel: number;
  readonly pixelScaleArcsecPerPx: number;
  /** How many times finer than the first rig's; over 1 = finer. Stops at the seeing. */
  readonly detail: number;
  /** Light gathered from a square arcminute in the same time, over the first rig's. */
  readonly lightRatio: number;
  /** Part of its frame or mosaic that the picture fills. */
  readonly filled: number;
  readonly megabytes: number;
}

/** Light per area and time: aperture area × throughput × quantum efficiency, m². */
export const lightGrasp = (rig: Rig): number => opticsOf(rig).apertureAreaM2 * rig.throughput * rig.quantumEfficiency;

/**
 * What another rig would need for a picture of a given size that the first one takes in `hoursPerPanel` on each panel: sky-limited,
 * the same sky and filter, SNR² per area ∝ A η (MATHS 1.8, 1.9, 4.4). A colour camera records a colour on a quarter to half
 * of its pixels: compare mono with mono. Read noise and lost corners are not counted; sub length counts for the disk only.
 */
export function compareRig(at: {
  readonly first: Rig;
  readonly other: Rig;
  /** Of the picture, on the plane. */
  readonly widthArcmin: number;
  readonly heightArcmin: number;
  readonly overlap: number;
  readonly hoursPerPanel: number;
  readonly subSec: number;
  /** Whether the other camera may stand across; absent = yes. */
  readonly mayTurn?: boolean;
}): RigComparison {
  const [first, other] = [opticsOf(at.first), opticsOf(at.other)];
  const field = { width: other.planeWidthArcmin, height: other.planeHeightArcmin };
  const along = (length: number, side: number) =>
    length <= side * 1.0001 ? 1 : Math.ceil((length - side) / (side * (1 - at.overlap)) - 1e-6) + 1;
  // The camera may stand either way: the one with fewer panels counts.
  const upright = { columns: along(at.widthArcmin, field.width), rows: along(at.heightArcmin, field.height) };
  const turned = { columns: along(at.widthArcmin, field.height), rows: along(at.heightArcmin, field.width) };
  const isTurned = at.mayTurn !== false && turned.columns * turned.rows < upright.columns * upright.rows;
  const { columns, rows } = isTurned ? turned : upright;
  const lightRatio = lightGrasp(at.other) / lightGrasp(at.first);
  const hoursPerPanel = at.hoursPerPanel / lightRatio;
  const { widthPx, heightPx, binning } = at.other.sensor;
  const subs = (columns * rows * hoursPerPanel * 3600) / at.subSec;
  const covered = columns * rows * field.width * field.height;
  return {
    columns,
    rows,
    hours: columns * rows * hoursPerPanel,
    hoursPerPanel,
    pixelScaleArcsecPerPx: other.pixelScaleArcsecPerPx,
    detail: first.pixelScaleArcsecPerPx / other.pixelScaleArcsecPerPx,
    lightRatio,
    filled: Math.min(1, (at.widthArcmin * at.heightArcmin) / covered),
    megabytes: (subs * (widthPx / binning) * (heightPx / binning) * 2) / 1e6,
  };
}
