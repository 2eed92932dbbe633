/** Splits |value| into whole units, minutes and seconds after rounding the seconds, so that 59.99″ carries over. */
function sexagesimal(value: number, secondDigits: number): [string, string, string] {
  const scale = 10 ** secondDigits;
  const total = Math.round(Math.abs(value) * 3600 * scale);
  const seconds = (total % (60 * scale)) / scale;
  const minutes = Math.floor(total / (60 * scale)) % 60;
  const width = secondDigits === 0 ? 2 : 3 + secondDigits;
  return [
    String(Math.floor(total / (3600 * scale))).padStart(2, "0"),
    String(minutes).padStart(2, "0"),
    seconds.toFixed(secondDigits).padStart(width, "0"),
  ];
}

/** "20h 50m 33.4s", one tenth of a second being 1.5″ on the equator. */
export function formatRightAscension(raDeg: number, secondDigits = 1): string {
  const [h, m, s] = sexagesimal(raDeg / 15, secondDigits);
  return `${h === "24" ? "00" : h}h ${m}m ${s}s`;
}

/** "+31° 10′ 03″". */
export function formatDeclination(decDeg: number, secondDigits = 0): string {
  const [d, m, s] = sexagesimal(decDeg, secondDigits);
  return `${decDeg < 0 ? "−" : "+"}${d}° ${m}′ ${s}″`;
}

const said = (count: string, one: string): string => `${Number(count)} ${one}${Number(count) === 1 ? "" : "s"}`;

/** "20 hours 50 minutes 33.4 seconds": a right ascension as people say it, for who listens. */
export function spokenRightAscension(raDeg: number, secondDigits = 1): string {
  const [h, m, s] = sexagesimal(raDeg / 15, secondDigits);
  return `${said(h === "24" ? "00" : h, "hour")} ${said(m, "minute")} ${said(s, "second")}`;
}

/** "minus 31 degrees 10 minutes 3 seconds": a declination as people say it. */
export function spokenDeclination(decDeg: number, secondDigits = 0): string {
  const [d, m, s] = sexagesimal(decDeg, secondDigits);
  return `${decDeg < 0 ? "minus" : "plus"} ${said(d, "degree")} ${said(m, "minute")} ${said(s, "second")}`;
}

/** "20 50 33.40 +31 10 03.0": a position for machines, ASCII only: hours and degrees, as mounts, tables and files take it. */
export function plainPosition(at: { readonly raDeg: number; readonly decDeg: number }): {
  readonly ra: string;
  readonly dec: string;
} {
  const [h, m, s] = sexagesimal(at.raDeg / 15, 2);
  const [d, arcmin, arcsec] = sexagesimal(at.decDeg, 1);
  return { ra: `${h === "24" ? "00" : h} ${m} ${s}`, dec: `${at.decDeg < 0 ? "-" : "+"}${d} ${arcmin} ${arcsec}` };
}

/** "12.3°" with a true minus sign. */
export const formatDegrees = (deg: number, digits = 1): string => `${deg.toFixed(digits).replace("-", "−")}°`;

/** Minutes as "2 h 05". */
export function formatMinutes(minutes: number): string {
  const whole = Math.round(minutes);
  return `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, "0")}`;
}

/** A short span: "40 s", "31 min", "1 h 05". */
export function formatSpan(ms: number): string {
  if (ms < 60_000) return `${Math.round(ms / 1000)} s`;
  const minutes = Math.round(ms / 60_000);
  return minutes < 60 ? `${minutes} min` : formatMinutes(minutes);
}

/** Hours as "2 h 05", rounded to the minute. */
export const formatHoursMinutes = (hours: number): string => formatMinutes(hours * 60);
