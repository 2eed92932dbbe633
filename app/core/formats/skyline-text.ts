import { parseNumber } from "~/core/notation";
import { err, ok, type Result } from "~/core/result";
import type { Skyline, SkylinePoint } from "~/core/sky";

/** What is wrong with a skyline text, and in which line (from 1). */
export interface SkylineFault {
  readonly code: "skylineLine" | "skylineAzimuth" | "skylineAltitude" | "skylineTwice" | "skylineTooFew";
  readonly line: number;
  readonly text: string;
}

/**
 * Reads "azimuth altitude" lines in degrees, from north through east, in any order; "#" begins a remark. Azimuth 360 means
 * north. An empty text is a level horizon; a single point is refused, since it would wall in the whole sky.
 */
export function parseSkyline(text: string): Result<Skyline, SkylineFault> {
  const points: SkylinePoint[] = [];
  for (const [i, raw] of text.split(/\r?\n/).entries()) {
    const content = raw.split("#")[0]!.trim();
    if (content === "") continue;
    const fault = (code: SkylineFault["code"]) => err({ code, line: i + 1, text: raw.trim() });
    const parts = content.split(/[\s;]+|,\s+|,(?=\S*$)/).filter((p) => p !== "");
    const [azimuth, altitude] = [parseNumber(parts[0] ?? ""), parseNumber(parts[1] ?? "")];
    if (parts.length !== 2 || azimuth === null || altitude === null) return fault("skylineLine");
    if (azimuth < 0 || azimuth > 360) return fault("skylineAzimuth");
    if (altitude < 0 || altitude > 90) return fault("skylineAltitude");
    const azimuthDeg = azimuth === 360 ? 0 : azimuth;
    if (points.some((p) => p.azimuthDeg === azimuthDeg && p.altitudeDeg !== altitude)) return fault("skylineTwice");
    if (!points.some((p) => p.azimuthDeg === azimuthDeg)) points.push({ azimuthDeg, altitudeDeg: altitude });
  }
  if (points.length === 1) return err({ code: "skylineTooFew", line: 1, text: text.trim() });
  return ok(points.sort((a, b) => a.azimuthDeg - b.azimuthDeg));
}

/** Writes a skyline as text that `parseSkyline` reads back unchanged. */
export const formatSkyline = (skyline: Skyline): string =>
  skyline.map((p) => `${p.azimuthDeg} ${p.altitudeDeg}`).join("\n");
