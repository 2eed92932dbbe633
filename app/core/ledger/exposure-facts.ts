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
  /** Its pixels lie under a mosaic of colour filters; absent = the file does not say. */
  readonly isColour?: boolean;
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
  /** Air beside the camera or the mount, °C, and where the focuser stood, steps; absent = the header does not say. */
  readonly airC?: number;
  readonly focusSteps?: number;
  /** A stand-in made it, as its header says. */
  readonly isSimulated?: true;
  /** What its stars and sky were like, by the header. */
  readonly measure: SubMeasure | null;
  /** `dataSumOf` its first pixels; none where they were not read, as of a row in a table. */
  readonly dataSum?: string;
}

const hexOf = (digest: Uint8Array): string =>
  [...digest.slice(0, 16)].map((b) => b.toString(16).padStart(2, "0")).join("");

/** A sum over a text, the same wherever it is made: 128 bits of SHA-256. */
export const textSumOf = (text: string): string => hexOf(sha256(utf8ToBytes(text)));

/** A sum over what a camera wrote, beside its header: 128 bits of SHA-256. */
export const dataSumOf = (bytes: Uint8Array): string => hexOf(sha256(bytes));

/** By what a file is known again, from wherever and however often it is dropped: 128 bits of SHA-256 each. */
export interface FileIdentity {
  /** Over camera, start, length and the sum of its data: neither a new name nor a solution changes it. Without a sum, as `before`. */
  readonly own: string;
  /** Over camera, start, length and size, as entries of earlier editions have it: subs of one second are alike by it. */
  readonly before: string;
}

/** By what an exposure's file is known again. */
export function fileIdentity(facts: ExposureFacts): FileIdentity {
  const { camera, startMs, wallMs, exposureSec, dataSum, fileName, sizeBytes } = facts;
  const before = textSumOf([camera ?? "", startMs ?? wallMs ?? fileName, exposureSec ?? "", sizeBytes].join("|"));
  if (dataSum == null) return { own: before, before };
  return {
    own: textSumOf([camera ?? "", startMs ?? wallMs ?? "", exposureSec ?? "", "data", dataSum].join("|")),
    before,
  };
}
