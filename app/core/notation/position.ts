import { err, ok, type Result } from "~/core/result";
import { parseAngle, parseDeclinationDeg, parseNumber, parseRightAscensionDeg } from "./parse";

/** A direction as somebody wrote it, and in which unit its right ascension was read. */
export interface ReadPosition {
  readonly raDeg: number;
  readonly decDeg: number;
  readonly read: "hours" | "degrees";
}

/** Why a text is no position. */
export interface PositionFault {
  readonly code: "positionUnreadable" | "positionRightAscension" | "positionDeclination";
  readonly text: string;
}

const COMPACT = /^J?(\d{2})(\d{2})(\d{2}(?:\.\d+)?)([+-])(\d{2})(\d{2})(\d{2}(?:\.\d+)?)$/i;

/** Splits a text into right ascension and declination, or null. */
function halves(text: string): readonly [string, string] | null {
  const byMark = /^(.+?)\s*(?:[;/]|,\s)\s*(.+)$/.exec(text) ?? /^([\d.]+),([+-]?[\d.]+)$/.exec(text);
  if (byMark) return [byMark[1]!, byMark[2]!];
  const bySign = /^(.+?)\s*([+-]\s*\d.*)$/.exec(text);
  if (bySign) return [bySign[1]!, bySign[2]!.replace(/^([+-])\s+/, "$1")];
  const words = text.split(/\s+/);
  return words.length % 2 === 0
    ? [words.slice(0, words.length / 2).join(" "), words.slice(words.length / 2).join(" ")]
    : null;
}

/** No position is longer. */
const LONGEST = 200;

/**
 * Reads right ascension and declination in any usual way of writing: "20h50m33s +31°10′", "20 50 33 +31 10 03",
 * "20:50:33, +31:10:03", "J205033.4+311003", "312.64 31.17", "RA 5h35 Dec -5.4". One plain number for right ascension
 * is degrees, several are hours, minutes, seconds; "h" and "°" or "d" decide otherwise.
 */
export function parsePosition(text: string): Result<ReadPosition, PositionFault> {
  if (text.length > LONGEST) return err({ code: "positionUnreadable", text: text.slice(0, LONGEST) });
  const tidy = text
    .trim()
    .replaceAll("−", "-")
    .replace(/\b(?:RA|R\.A\.|Dec|Decl|δ|α|ICRS|J2000(?:\.0)?)\b[:=]?/gi, " ")
    .replace(/\s+/g, " ")
    .trim();
  const compact = COMPACT.exec(tidy.replaceAll(" ", ""));
  const [ra, dec] = compact
    ? [`${compact[1]} ${compact[2]} ${compact[3]}`, `${compact[4]}${compact[5]} ${compact[6]} ${compact[7]}`]
    : (halves(tidy) ?? ["", ""]);
  if (ra.trim() === "" || dec.trim() === "" || !/\d/.test(dec)) return err({ code: "positionUnreadable", text });
  const isDegrees = parseNumber(ra) !== null || (/[d°]/i.test(ra) && !/h/i.test(ra));
  const raDeg = isDegrees ? degreesOf(ra) : parseRightAscensionDeg(ra);
  if (!raDeg.ok)
    return err({ code: parseAngle(ra).ok || isDegrees ? "positionRightAscension" : "positionUnreadable", text });
  const decDeg = parseDeclinationDeg(dec);
  if (!decDeg.ok) return err({ code: parseAngle(dec).ok ? "positionDeclination" : "positionUnreadable", text });
  return ok({ raDeg: raDeg.value, decDeg: decDeg.value, read: isDegrees ? "degrees" : "hours" });
}

function degreesOf(text: string): Result<number, { readonly code: "angleOutOfRange" }> {
  const value = parseAngle(text);
  return value.ok && value.value >= 0 && value.value < 360 ? value : err({ code: "angleOutOfRange" });
}

/** Whether a text looks like a position rather than a name: two signed or sexagesimal groups, no other letters. */
export const looksLikePosition = (text: string): boolean =>
  /\d/.test(text) &&
  !/[a-ce-gi-ln-rt-z]{2}/i.test(text.replace(/\b(?:RA|Dec|Decl|J2000)\b/gi, "")) &&
  parsePosition(text).ok;
