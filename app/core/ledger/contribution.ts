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
  /** Gain in the camera's own counting; absent = not known. */
  readonly gain?: number;
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
}
