import { sha256 } from "@noble/hashes/sha2.js";
import { utf8ToBytes } from "@noble/hashes/utils.js";
import type { Equatorial } from "~/core/sky";
import type { UtcMs } from "~/core/time";
import type { SubMeasure } from "./contribution";

/** What an exposure file is. */
export type FrameType = "light" | "dark" | "flat" | "bias" | "darkFlat" | "unknown";

/** What the header of an exposure file says; null where it is silent. */
export interface ExposureFacts {
  readonly fileName: string;
  readonly sizeBytes: number;
  readonly frameType: FrameType;
  readonly object: string | null;
  /** Folders and name of the file, where the header does not say what it shows. */
  readonly hints: readonly string[];
  readonly startMs: UtcMs | null;
  /** Start by a clock that does not say its zone, as if it ran on UTC; null where `startMs` is known, or nothing is. */
  readonly wallMs: number | null;
  readonly exposureSec: number | null;
  readonly filter: string | null;
  readonly camera: string | null;
  readonly gain: number | null;
  readonly offset: number | null;
  readonly temperatureC: number | null;
  readonly focalLengthMm: number | null;
  readonly pixelPitchUm: number | null;
  readonly binning: number | null;
  readonly widthPx: number | null;
  readonly heightPx?: number | null;
  /** Where it was taken. */
  readonly site: { readonly latitudeDeg: number; readonly longitudeDeg: number } | null;
  /** From a plate solution, else from the mount. */
  readonly centre: Equatorial<"icrs"> | null;
  readonly isSolved: boolean;
  /** A solution that cannot be used, and why; null where there is none, or a good one. */
  readonly solutionFault: { readonly code: string; readonly found: string } | null;
  /** Of the picture's up at the centre; only from a plate solution. */
  readonly positionAngleDeg: number | null;
  /** Angle that the rotator reads, degrees. */
  readonly rotatorDeg: number | null;
  readonly pixelScaleArcsec: number | null;
  /** What its stars and sky were like, by the header. */
  readonly measure: SubMeasure | null;
}

/**
 * The same for the same exposure however often and from wherever it is dropped: 128 bits of SHA-256 over camera, start,
 * length and size. Renaming a file does not change it; solving it does change its size, and so its identity.
 */
export function fileIdentity(facts: ExposureFacts): string {
  const text = [
    facts.camera ?? "",
    facts.startMs ?? facts.wallMs ?? facts.fileName,
    facts.exposureSec ?? "",
    facts.sizeBytes,
  ].join("|");
  const digest = sha256(utf8ToBytes(text));
  return [...digest.slice(0, 16)].map((b) => b.toString(16).padStart(2, "0")).join("");
}
