import { err, ok, type Result } from "~/core/result";

/** Why a text is no angle. */
export interface AngleFault {
  readonly code: "angleUnreadable" | "angleOutOfRange";
  readonly text: string;
}

/** No angle or number is longer; the patterns below may go back over blanks. */
const LONGEST = 80;

const PARTS =
  /^([+\-−]?)\s*(\d+(?:\.\d+)?)(?:\s*[hHdD°:\s]\s*(\d+(?:\.\d+)?))?(?:\s*[m'′:\s]\s*(\d+(?:\.\d+)?))?\s*[hHdD°m'′s"″]*\s*([NSEW]?)$/;

/**
 * Reads "41.27", "-12 30 15.5", "+41°16′09″", "20h50m", "7:04:00", with an optional capital N/S/E/W at the end, into a number in
 * the unit of its first part. Minutes and seconds must be under 60 and only the last part may have decimals. The sign
 * holds for the whole, so "-00 30" is −0.5.
 */
export function parseAngle(text: string): Result<number, AngleFault> {
  const match = text.length > LONGEST ? null : PARTS.exec(text.trim().replaceAll(",", "."));
  if (!match) return err({ code: "angleUnreadable", text });
  const [, sign, first, second, third, side] = match;
  const [a, b, c] = [first, second, third].map((p) => (p === undefined ? 0 : Number(p))) as [number, number, number];
  // "59′30" has seconds without minutes.
  if (third !== undefined && second === undefined) return err({ code: "angleUnreadable", text });
  const decimalsInside =
    (second !== undefined && first!.includes(".")) || (third !== undefined && second!.includes("."));
  if (b >= 60 || c >= 60 || decimalsInside) return err({ code: "angleUnreadable", text });
  const size = a + b / 60 + c / 3600;
  const southOrWest = /[SW]/.test(side ?? "");
  if (southOrWest && sign !== "") return err({ code: "angleUnreadable", text });
  return ok(sign === "-" || sign === "−" || southOrWest ? -size : size);
}

/** Right ascension from hours ("20 50 33", "20h50.5m") or, with "deg" or a single number marked "d" or "°", degrees; [0, 360). */
export function parseRightAscensionDeg(text: string): Result<number, AngleFault> {
  const isDegrees = /(deg|[d°])/i.test(text);
  const value = parseAngle(text.replace(/deg/i, ""));
  if (!value.ok) return value;
  const deg = isDegrees ? value.value : value.value * 15;
  return deg >= 0 && deg < 360 ? ok(deg) : err({ code: "angleOutOfRange", text });
}

/** Declination in degrees, [−90, 90]. */
export function parseDeclinationDeg(text: string): Result<number, AngleFault> {
  const value = parseAngle(text);
  if (!value.ok) return value;
  return Math.abs(value.value) <= 90 ? value : err({ code: "angleOutOfRange", text });
}

/** A plain decimal number with point or comma, or null. */
export function parseNumber(text: string): number | null {
  if (text.length > LONGEST) return null;
  const trimmed = text.trim().replace(",", ".").replace("−", "-");
  const value = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(trimmed) ? Number(trimmed) : NaN;
  return Number.isFinite(value) ? value : null;
}
