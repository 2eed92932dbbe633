import { parseNumber } from "~/core/notation";
import { err, ok, type Result } from "~/core/result";
import type { Skyline, SkylinePoint } from "~/core/sky";

/** What is wrong with a skyline text, and in which line (from 1). */
export interface SkylineFault {
  readonly code:
    "skylineLine" | "skylineAzimuth" | "skylineAltitude" | "skylineTwice" | "skylineTooFew" | "skylineTooMany";
  readonly line: number;
  readonly text: string;
}

/** A skyline text as far as it can be read. */
export interface ReadSkyline {
  /** Every point that is right, by rising azimuth. */
  readonly skyline: Skyline;
  /** The lines that are not, the first 50 of them. */
  readonly faults: readonly SkylineFault[];
  /** First line whose azimuth runs back behind the line before it; the points were sorted. Null when all rise. */
  readonly unsorted: { readonly line: number; readonly text: string } | null;
}

/** Points at most: one every tenth of a degree. */
const MOST_POINTS = 3600;
const MOST_FAULTS = 50;
const LONGEST_LINE = 200;

/**
 * Reads "azimuth altitude" lines in degrees, from north through east, in any order; "#" begins a remark. Azimuth 360 means
 * north. Lines that are wrong are named and the rest is kept. An empty text is a level horizon; a single point is refused,
 * since it would wall in the whole sky.
 */
export function readSkyline(text: string): ReadSkyline {
  const points = new Map<number, SkylinePoint>();
  const faults: SkylineFault[] = [];
  let unsorted: ReadSkyline["unsorted"] = null;
  let lastAzimuth = -1;
  for (const [i, raw] of text.split(/\r?\n/).entries()) {
    const content = raw.split("#")[0]!.trim();
    if (content === "") continue;
    const at = { line: i + 1, text: raw.trim().slice(0, LONGEST_LINE) };
    if (faults.length >= MOST_FAULTS) break;
    if (points.size > MOST_POINTS) {
      faults.push({ code: "skylineTooMany", ...at });
      break;
    }
    const parts = content.length > LONGEST_LINE ? [] : content.split(/[\s;]+|,\s+|,(?=\S*$)/).filter((p) => p !== "");
    const [azimuth, altitude] = [parseNumber(parts[0] ?? ""), parseNumber(parts[1] ?? "")];
    if (parts.length !== 2 || azimuth === null || altitude === null) faults.push({ code: "skylineLine", ...at });
    else if (azimuth < 0 || azimuth > 360) faults.push({ code: "skylineAzimuth", ...at });
    else if (altitude < 0 || altitude > 90) faults.push({ code: "skylineAltitude", ...at });
    else {
      const azimuthDeg = azimuth === 360 ? 0 : azimuth;
      const twin = points.get(azimuthDeg);
      if (twin && twin.altitudeDeg !== altitude) faults.push({ code: "skylineTwice", ...at });
      else if (!twin) points.set(azimuthDeg, { azimuthDeg, altitudeDeg: altitude });
      if (azimuth < lastAzimuth) unsorted ??= at;
      lastAzimuth = azimuth;
    }
  }
  if (points.size === 1) faults.push({ code: "skylineTooFew", line: 1, text: text.trim().slice(0, LONGEST_LINE) });
  const all = [...points.values()].slice(0, MOST_POINTS);
  return { skyline: all.sort((a, b) => a.azimuthDeg - b.azimuthDeg), faults, unsorted };
}

/** As `readSkyline`, for storing: refused with the first fault. */
export function parseSkyline(text: string): Result<Skyline, SkylineFault> {
  const { skyline, faults } = readSkyline(text);
  return faults[0] ? err(faults[0]) : ok(skyline);
}

/** Writes a skyline as text that `parseSkyline` reads back unchanged. */
export const formatSkyline = (skyline: Skyline): string =>
  skyline.map((p) => `${p.azimuthDeg} ${p.altitudeDeg}`).join("\n");
