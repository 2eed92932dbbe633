import { CHANNEL_FACTS, type Channel } from "~/core/exposure";
import {
  DOME_FADE_DEG,
  darkSkyNanolambert,
  domeFootNanolambert,
  domeNanolambert,
  extinctionMagPerAirmass,
  moonAvoidanceDeg,
  moonColourFactor,
  moonIlluminance,
  scatteringTerms,
  skylineTable,
  airmassKastenYoung,
  twilightFlux,
  thinAirmass,
  type LightDome,
} from "~/core/sky";
import { degToRad, magToFluxRatio, radToDeg } from "~/core/units";
import type { MoonLimit, TwilightLimit } from "./moon-school";
import type { Place } from "./place";
import type { NightSteps } from "./steps";

const SIN_BINS = 1024; // of sin h: 0.06° at 30°, worth exact to 0.2 %
const COS_BINS = 1024; // of cos ρ: 0.2° at 30°
const MOON_PER_DEG = 4;

/** What one channel over one place is every night, tabulated for speed. */
export interface ChannelTables {
  readonly channel: Channel;
  /** By sin h: extinction twice over, and moonless sky over the zenith sky. */
  readonly extinction2: Float64Array;
  readonly darkOverZenith: Float64Array;
  /** By sin h: scattering path of moonlight; by cos ρ: scattering function. */
  readonly scatter: Float64Array;
  readonly scattering: Float64Array;
  /** By altitude of the Moon, every quarter degree: its strength over the zenith sky when full, through the air and in the colour of the channel. */
  readonly moonByAltitude: Float64Array;
  readonly zenithNanolambert: number;
  /** The moonless zenith in this channel, as a flux ratio to magnitude 0 per arcsec². */
  readonly zenithFlux: number;
  readonly sinMinAltitude: number;
  /** Sine of the skyline by half degrees of azimuth, its highest and its lowest. */
  readonly sinSkyline: Float64Array;
  readonly sinSkylineMax: number;
  readonly sinSkylineMin: number;
  readonly sinLatitude: number;
  readonly cosLatitude: number;
  /** Glow of towns at the horizon over the zenith sky, by half degrees of azimuth; null without any. */
  readonly domeFoot: Float64Array | null;
  /** By sin h: what is left of it at that altitude. */
  readonly domeFade: Float64Array;
  /** Lamps as directions of the horizon frame. */
  readonly lamps: readonly {
    readonly north: number;
    readonly east: number;
    readonly up: number;
    readonly cosRadius: number;
  }[];
  /** Sine of the highest altitude any lamp reaches; −1 without one. */
  readonly sinLampsMax: number;
}

/** The tables, and what of a channel depends on the night but not on the target. */
export interface ChannelSky extends ChannelTables {
  /** Per step: whether the Sun is low enough, as far as that is asked. */
  readonly isDark: Uint8Array;
  /** Per step: twilight over the zenith sky. */
  readonly twilight: Float64Array;
  /** First step that may be dark enough, and the one after the last; equal when none is. */
  readonly darkFrom: number;
  readonly darkTo: number;
  /** Per step: the Moon's strength over the zenith sky. */
  readonly moonStrength: Float64Array;
  /** Per step: cosine of the separation from the Moon that is asked for; 2 where none is, −2 where the whole sky is barred. */
  readonly cosAvoidance: Float64Array;
  /** Share of its worth without Moon and twilight that a minute must keep under the Moon; 0 when nothing is asked. */
  readonly leastShare: number;
  /** The same for twilight alone. */
  readonly leastTwilightShare: number;
}

/** Index into the tables by sin h, [0, 1]. */
export const sinBin = (sinAltitude: number): number => (sinAltitude * (SIN_BINS - 1) + 0.5) | 0;
/** Index into the table by cos ρ, [−1, 1]. */
export const cosBin = (cosSeparation: number): number => ((cosSeparation + 1) * 0.5 * (COS_BINS - 1) + 0.5) | 0;

const ATAN_BINS = 2048;
/** Arctangent of a ratio up to 1, in half degrees. */
const HALF_DEGREES_OF = Float32Array.from({ length: ATAN_BINS + 1 }, (_, i) => radToDeg(Math.atan(i / ATAN_BINS)) * 2);

/** Half degree of azimuth, 0–719, of a direction with these parts; exact to 0.02° at the edges of a bin and ten times faster than an arctangent. */
export function azimuthBin(north: number, east: number): number {
  const n = Math.abs(north);
  const e = Math.abs(east);
  const fromAxis =
    n >= e
      ? HALF_DEGREES_OF[((n === 0 ? 0 : e / n) * ATAN_BINS + 0.5) | 0]!
      : 180 - HALF_DEGREES_OF[((n / e) * ATAN_BINS + 0.5) | 0]!;
  const half = north >= 0 ? fromAxis : 360 - fromAxis;
  const bin = ((east >= 0 ? half : 720 - half) + 0.5) | 0;
  return bin === 720 ? 0 : bin;
}

/** Scattering function with each part scaled to a wavelength ratio to V; ratio 1 = the published one. */
function scatteringAt(separationDeg: number, ratio: number): number {
  const { rayleigh, mie } = scatteringTerms(separationDeg);
  return rayleigh * ratio ** -4.09 + mie * ratio ** -1.3;
}

/** Tabulates a channel over a place; about 0.4 ms. */
export function channelTables(place: Place, channel: Channel): ChannelTables {
  const facts = CHANNEL_FACTS[channel];
  const k = extinctionMagPerAirmass(facts.centreNm, place.elevationM);
  const kV = extinctionMagPerAirmass(550, place.elevationM);
  const dark = (h: number) =>
    darkSkyNanolambert({ zenithSkyMag: place.skyMagPerArcsec2, zenithDistanceDeg: 90 - h, extinctionMag: kV });
  const zenithNanolambert = dark(90);
  const inChannel = zenithNanolambert * magToFluxRatio(facts.skyOffsetMag);
  const scatteringRatio = scatteringAt(60, facts.centreNm / 550) / scatteringAt(60, 1);
  const bySin = (f: (altitudeDeg: number) => number) =>
    Float64Array.from({ length: SIN_BINS }, (_, i) => f(radToDeg(Math.asin(i / (SIN_BINS - 1)))));
  const skyline = skylineTable(place.skyline, place.landmarks).map((deg) => Math.sin(degToRad(deg)));
  return {
    channel,
    extinction2: bySin((h) => magToFluxRatio(2 * k * (airmassKastenYoung(Math.max(5, h)) - 1))),
    darkOverZenith: bySin((h) => dark(h) / zenithNanolambert),
    scatter: bySin((h) => 1 - magToFluxRatio(kV * thinAirmass(90 - h))),
    scattering: Float64Array.from({ length: COS_BINS }, (_, i) => {
      const separationDeg = radToDeg(Math.acos(Math.max(-1, (2 * i) / (COS_BINS - 1) - 1)));
      return scatteringAt(separationDeg, facts.centreNm / 550);
    }),
    moonByAltitude: Float64Array.from({ length: 90 * MOON_PER_DEG + 1 }, (_, i) => {
      const moonZ = 90 - i / MOON_PER_DEG;
      const colour = moonColourFactor({
        wavelengthNm: facts.centreNm,
        separationDeg: 60,
        zenithDistanceDeg: 45,
        moonZenithDistanceDeg: moonZ,
        elevationM: place.elevationM,
      });
      return ((colour / scatteringRatio) * magToFluxRatio(kV * thinAirmass(moonZ))) / inChannel;
    }),
    zenithNanolambert,
    zenithFlux: magToFluxRatio(place.skyMagPerArcsec2 + facts.skyOffsetMag),
    sinMinAltitude: Math.sin(degToRad(place.minAltitudeDeg)),
    sinSkyline: skyline,
    sinSkylineMax: Math.max(0, ...skyline),
    sinSkylineMin: Math.min(...skyline),
    sinLatitude: Math.sin(degToRad(place.latitudeDeg)),
    cosLatitude: Math.cos(degToRad(place.latitudeDeg)),
    domeFoot: domesByAzimuth(place.domes ?? [], place.skyMagPerArcsec2, kV, zenithNanolambert),
    domeFade: bySin((h) => Math.exp(-h / DOME_FADE_DEG)),
    lamps: (place.lamps ?? []).map((l) => {
      const [az, alt] = [degToRad(l.azimuthDeg), degToRad(l.altitudeDeg)];
      return {
        north: Math.cos(alt) * Math.cos(az),
        east: Math.cos(alt) * Math.sin(az),
        up: Math.sin(alt),
        cosRadius: Math.cos(degToRad(l.radiusDeg)),
      };
    }),
    sinLampsMax: Math.max(
      -1,
      ...(place.lamps ?? []).map((l) => Math.sin(degToRad(Math.min(90, l.altitudeDeg + l.radiusDeg)))),
    ),
  };
}

/** All domes at the horizon over the zenith sky, every half degree; null when none shines. */
function domesByAzimuth(
  domes: readonly LightDome[],
  zenithSkyMag: number,
  extinctionMag: number,
  zenithNanolambert: number,
): Float64Array | null {
  const feet = domes.map((d) => ({ ...d, footNanolambert: domeFootNanolambert(d, zenithSkyMag, extinctionMag) }));
  if (feet.every((d) => d.footNanolambert === 0)) return null;
  return Float64Array.from(
    { length: 720 },
    (_, i) =>
      feet.reduce((sum, d) => sum + domeNanolambert(d, { azimuthDeg: i / 2, altitudeDeg: 0 }), 0) / zenithNanolambert,
  );
}

/** Cosine of the separation asked for at a phase of the Moon: 2 for none, −2 for more than the whole sky. */
function cosAvoidanceAt(limit: MoonLimit, phaseAngleDeg: number): number {
  if (limit.kind === "noMoon") return -2;
  const deg = limit.kind === "keepAway" ? moonAvoidanceDeg(limit.rule, phaseAngleDeg) : 0;
  return deg > 0 ? Math.cos(degToRad(deg)) : 2;
}

/** Twilight over the zenith sky beyond which no minute of anything keeps a share that somebody would ask for. */
const BLINDING = 100;

/**
 * Prepares the worth of a minute by altitude, Moon, twilight and channel (`minuteWorth`): one background, of the dark sky in the colour
 * of the channel, towns, Krisciunas & Schaefer's moonlight scaled to its wavelength at one geometry, and twilight as at the zenith.
 * Clear air is assumed. `tables` saves time over many nights.
 */
export function channelSky(
  place: Place,
  steps: NightSteps,
  channel: Channel,
  limit: MoonLimit,
  light: TwilightLimit,
  tables: ChannelTables = channelTables(place, channel),
): ChannelSky {
  const { centreNm } = CHANNEL_FACTS[channel];
  const twilight = Float64Array.from(steps.sunAltitudeDeg, (deg) => twilightFlux(centreNm, -deg) / tables.zenithFlux);
  const isDark = Uint8Array.from(steps.sunAltitudeDeg, (deg, i) =>
    deg < light.sunBelowDeg && (light.leastShare === 0 || twilight[i]! < BLINDING) ? 1 : 0,
  );
  return {
    // Name by name: what a spread makes has another shape each time, and every walk would be compiled anew.
    channel: tables.channel,
    extinction2: tables.extinction2,
    darkOverZenith: tables.darkOverZenith,
    scatter: tables.scatter,
    scattering: tables.scattering,
    moonByAltitude: tables.moonByAltitude,
    zenithNanolambert: tables.zenithNanolambert,
    zenithFlux: tables.zenithFlux,
    sinMinAltitude: tables.sinMinAltitude,
    sinSkyline: tables.sinSkyline,
    sinSkylineMax: tables.sinSkylineMax,
    sinSkylineMin: tables.sinSkylineMin,
    sinLatitude: tables.sinLatitude,
    cosLatitude: tables.cosLatitude,
    domeFoot: tables.domeFoot,
    domeFade: tables.domeFade,
    lamps: tables.lamps,
    sinLampsMax: tables.sinLampsMax,
    isDark,
    twilight,
    darkFrom: Math.max(0, isDark.indexOf(1)),
    darkTo: isDark.lastIndexOf(1) + 1,
    moonStrength: Float64Array.from(steps.moonAltitudeDeg, (alt, i) =>
      alt > 0
        ? tables.moonByAltitude[Math.round(alt * MOON_PER_DEG)]! * moonIlluminance(steps.moonPhaseAngleDeg[i]!)
        : 0,
    ),
    cosAvoidance: Float64Array.from(steps.moonPhaseAngleDeg, (phase) => cosAvoidanceAt(limit, phase)),
    leastShare: limit.kind === "count" ? limit.leastShare : 0,
    leastTwilightShare: light.leastShare,
  };
}
