import { clamp, degToRad, radToDeg } from "~/core/units";

/** Above this the rate of a mount that turns in altitude and azimuth grows without limit; nobody shoots there. */
const HIGHEST_DEG = 85;
const SIDEREAL_DEG_PER_HOUR = 15.041;

/**
 * How fast the field of a mount that moves in altitude and azimuth turns, degrees an hour (sign: with the parallactic angle).
 * Azimuth from north through east. Valid below 85° of altitude; infinite at the zenith. Meeus, ch. 14, differentiated.
 */
export function fieldRotationDegPerHour(latitudeDeg: number, azimuthDeg: number, altitudeDeg: number): number {
  const [lat, az, alt] = [degToRad(latitudeDeg), degToRad(azimuthDeg), degToRad(altitudeDeg)];
  return (-SIDEREAL_DEG_PER_HOUR * Math.cos(lat) * Math.cos(az)) / Math.cos(alt);
}

/**
 * The rate that four fifths of a declination's time between two altitudes stay below, degrees an hour; null where it never
 * stands there.
 */
export function usualRotationDegPerHour(latitudeDeg: number, decDeg: number, lowestDeg: number): number | null {
  const [lat, dec] = [degToRad(latitudeDeg), degToRad(decDeg)];
  const rates: number[] = [];
  for (let hourDeg = -180; hourDeg < 180; hourDeg += 2.5) {
    const ha = degToRad(hourDeg);
    const sinAlt = Math.sin(lat) * Math.sin(dec) + Math.cos(lat) * Math.cos(dec) * Math.cos(ha);
    const altitudeDeg = radToDeg(Math.asin(clamp(sinAlt, -1, 1)));
    if (altitudeDeg < lowestDeg || altitudeDeg > HIGHEST_DEG) continue;
    const azimuth = Math.atan2(
      -Math.cos(dec) * Math.sin(ha),
      Math.sin(dec) * Math.cos(lat) - Math.cos(dec) * Math.sin(lat) * Math.cos(ha),
    );
    rates.push(Math.abs(fieldRotationDegPerHour(latitudeDeg, radToDeg(azimuth), altitudeDeg)));
  }
  rates.sort((a, b) => a - b);
  return rates[Math.min(rates.length - 1, Math.floor(rates.length * 0.8))] ?? null;
}
