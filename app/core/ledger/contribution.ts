import type { Channel } from "~/core/exposure";

/** Why subs were not kept. */
export const CULL_REASONS = ["cloud", "wind", "trail", "seeing", "guiding", "focus", "light", "other"] as const;
export type CullReason = (typeof CULL_REASONS)[number];

/** Exposures of one panel, channel and night by one member. Never edited by anyone else. A booked file is one with `taken` 1. */
export interface ContributionData {
  readonly projectId: string;
  readonly panel: string;
  readonly channel: Channel;
  /** Evening date at the place. */
  readonly night: string;
  readonly memberId: string;
  readonly rigId: string;
  readonly placeId: string;
  readonly exposureSec: number;
  readonly taken: number;
  readonly kept: number;
  /** Why some were not kept; "" when all were. */
  readonly reason: CullReason | "";
  /** Worth of a minute relative to the place's moonless zenith, by the model of that day; null = not known. */
  readonly worthRate: number | null;
  readonly startMs: number | null;
  /** The file it was read from, if any. */
  readonly fileName: string;
  readonly note: string;
  /** Where the camera pointed, ICRS degrees, and the angle of its up axis where that is known; absent = not known. */
  readonly at?: { readonly raDeg: number; readonly decDeg: number; readonly positionAngleDeg: number | null };
  /** The frame it was taken with; absent = the first one of the project's reference frame. */
  readonly frameId?: string;
  /** Gain, offset and binning in the camera's own counting, and the sensor's temperature; absent = not known. */
  readonly gain?: number;
  readonly offset?: number;
  readonly binning?: number;
  readonly temperatureC?: number;
  /** Air beside the camera or the mount, °C, and where the focuser stood, steps; absent = not known. */
  readonly airC?: number;
  readonly focusSteps?: number;
  /** A stand-in made it, and no sky was seen; absent = it is real. */
  readonly isSimulated?: true;
  /** What its stars and its sky were like; absent = nobody measured. */
  readonly measure?: SubMeasure;
  /** What was kept before, and until when; the latest last. Absent = it was never changed. */
  readonly history?: readonly KeptBefore[];
}

/** Stars and sky of one sub. */
export interface SubMeasure {
  /** Of stars, image pixels as binned. */
  readonly fwhmPx: number;
  /** √(1 − (b/a)²) of the stars' outline; null = not told. */
  readonly eccentricity: number | null;
  readonly stars: number | null;
  /** Of the sky, median, in the file's own counts. */
  readonly background: number | null;
  /** Light of stars of fixed ranks, in the file's own counts: falls with transparency; absent = not told. */
  readonly light?: number;
  /** Eccentricity of what all of the picture shares of its stars' shapes; absent = not told. */
  readonly shared?: number;
  /** Who says so: the app from the picture itself, the file's header, or a table. */
  readonly from: "picture" | "header" | "table";
}

/** A state of an entry that was left. */
export interface KeptBefore {
  readonly untilMs: number;
  readonly kept: number;
  readonly reason: CullReason | "";
}

/** A calibration exposure found among the files: counted, matched later. */
export interface CalibrationData {
  readonly type: "dark" | "flat" | "bias" | "darkFlat";
  readonly memberId: string;
  readonly camera: string;
  readonly exposureSec: number;
  readonly gain: number | null;
  readonly temperatureC: number | null;
  readonly filter: string;
  readonly startMs: number | null;
  readonly fileName: string;
  /** Absent = not known. */
  readonly offset?: number;
  readonly binning?: number;
  /** Angle of the camera, from its rotator or a solution, degrees. */
  readonly positionAngleDeg?: number;
  /** A stand-in made it; absent = it is real. */
  readonly isSimulated?: true;
}
