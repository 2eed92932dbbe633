import type { CatalogEntry } from "~/core/catalog";
import { DEFAULT_OVERHEADS, type Filter, type Rig } from "~/core/exposure";
import { panelSky, placeNight, runSheet, targetNight, USUAL_MOON, type Place, type WorkItem } from "~/core/night";
import { MOMENT_MS, type HourForecast, type TrueWeather } from "~/core/observatory";
import { nextTransitMs, nightEvents } from "~/core/sky";
import { HOUR_MS, MINUTE_MS, nightDate, utcMs, type UtcMs } from "~/core/time";
import { panelKey, skyKey, subjectOf, type RehearsalNight, type RehearsalRig } from "./question";

/** Nights made for those who begin, each with one thing to learn. Places and kit are invented. */
export const PREPARED = ["firstLight", "flip", "gap", "wind", "dew", "twoRigs"] as const;
export type Prepared = (typeof PREPARED)[number];

/** What all of them are of: an emission nebula that crosses the meridian in the evening. */
export const PREPARED_TARGET = "NGC 7822";

/** Where they are spent. */
export const PREPARED_PLACE: Place = {
  name: "Quarry field",
  latitudeDeg: 47.2,
  longitudeDeg: 8.1,
  elevationM: 520,
  timeZone: "Europe/Zurich",
  skyMagPerArcsec2: 20.8,
  skyline: [],
  minAltitudeDeg: 30,
  seeingArcsec: 2.6,
  clearChance: Array<number>(12).fill(0.4),
};

const NIGHT = nightDate("2026-11-10"); // the day after new Moon

const HA: Filter = { name: "Ha 5 nm", channel: "Ha", centreNm: 656.3, bandwidthNm: 5, transmission: 0.88 };
const OIII: Filter = { name: "OIII 5 nm", channel: "OIII", centreNm: 500.7, bandwidthNm: 5, transmission: 0.88 };
const DUAL: Filter = { name: "Two lines", channel: "Dual", centreNm: 580, bandwidthNm: 14, transmission: 0.9 };

const SHORT_REFRACTOR: Rig = {
  name: "Short refractor",
  focalLengthMm: 420, reducerFactor: 1, apertureMm: 72, obstruction: 0, throughput: 0.92,
  sensor: { widthPx: 4144, heightPx: 2822, pixelPitchUm: 4.63, binning: 1 },
  isColour: false, cameraName: "Mono-17", quantumEfficiency: 0.82,
  readNoiseE: 1.8, gainEPerAdu: 0.9, bits: 14, offsetAdu: 240, fullWellE: 14_000,
  darkEPerSec: 0.003, workingTempC: -10, isCooled: true,
  isGuided: true, longestUnguidedSec: 60, rotator: "none", reflections: 0, flipsAtMeridian: true,
  filterIds: [], overheads: { ...DEFAULT_OVERHEADS, focusEveryMin: 120 },
}; // prettier-ignore

const FAST_MIRROR: Rig = {
  ...SHORT_REFRACTOR,
  name: "Fast mirror",
  focalLengthMm: 600, apertureMm: 150, obstruction: 0.4, throughput: 0.78, reflections: 2,
  sensor: { widthPx: 6248, heightPx: 4176, pixelPitchUm: 3.76, binning: 1 },
  isColour: true, cameraName: "Colour-26", gustLimitKmh: 22,
}; // prettier-ignore

/** What makes a night what it is. */
interface Plot {
  readonly rigs: readonly { readonly rig: Rig; readonly work: readonly (readonly [Filter, subSec: number, subs: number])[] }[]; // prettier-ignore
  readonly untilLocal: number;
  /** As forecast, by local hour from 17 on. */
  readonly forecast: (hour: number) => Partial<Omit<HourForecast, "startMs">>;
  /** As it was, by local hour with its fraction; null = as forecast, without cloud. */
  readonly was: (hour: number) => { readonly passes?: number; readonly gustKmh?: number; readonly airC?: number };
}

/** Evening hours in a row: 0 h and later count on from 24. */
const PLOTS: Readonly<Record<Prepared, Plot>> = {
  firstLight: {
    rigs: [{ rig: { ...SHORT_REFRACTOR, flipsAtMeridian: false }, work: [[HA, 300, 40]] }],
    untilLocal: 23,
    forecast: (h) => ({ odds: 0.95, airC: 9 - 2.4 * (h - 18) }),
    was: () => ({}),
  },
  flip: {
    rigs: [{ rig: SHORT_REFRACTOR, work: [[HA, 300, 40], [OIII, 300, 30]] }],
    untilLocal: 25,
    forecast: () => ({ odds: 0.95 }),
    was: () => ({}),
  },
  gap: {
    rigs: [{ rig: { ...SHORT_REFRACTOR, flipsAtMeridian: false }, work: [[HA, 300, 70]] }],
    untilLocal: 26,
    forecast: (h) => ({ odds: h < 22 ? 0.8 : h < 23 ? 0.35 : 0.65 }),
    was: (h) => ({ passes: h > 22.05 && h < 23.2 ? 0.03 : 1 }),
  },
  wind: {
    rigs: [{ rig: { ...FAST_MIRROR, flipsAtMeridian: false }, work: [[DUAL, 120, 160]] }],
    untilLocal: 25,
    forecast: (h) => ({ odds: 0.95, gustKmh: h >= 20 && h < 22 ? 34 : 14 }),
    was: (h) => ({ gustKmh: (h >= 20.1 && h < 20.75) || (h >= 21.1 && h < 21.7) ? 36 : 12 }),
  },
  dew: {
    rigs: [
      {
        rig: {
          ...SHORT_REFRACTOR,
          flipsAtMeridian: false,
          power: { mountW: 10, cameraW: 6, coolerW: 25, dewW: 14, computerW: 12, batteryWh: 240, chemistry: "lithium" },
        },
        work: [[HA, 300, 70]],
      },
    ],
    untilLocal: 25,
    forecast: (h) => ({ odds: 0.95, airC: 8 - 0.5 * (h - 18), dewC: h < 20 ? 3 : 5 }),
    was: () => ({}),
  },
  twoRigs: {
    rigs: [
      { rig: SHORT_REFRACTOR, work: [[HA, 300, 40], [OIII, 300, 30]] },
      { rig: FAST_MIRROR, work: [[DUAL, 120, 180]] },
    ],
    untilLocal: 25,
    forecast: (h) => ({ odds: 0.95, airC: 9 - 0.8 * (h - 18) }),
    was: () => ({}),
  },
}; // prettier-ignore

const USUAL_HOUR = { odds: 0.95, airC: 6, dewC: -3, gustKmh: 8, seeingArcsec: 2.6 };
const FIRST_HOUR = 17;
const HOURS = 14;

/** A prepared night, laid out and with its weather fixed. `target`: the entry of `PREPARED_TARGET`. */
export function preparedNight(which: Prepared, target: CatalogEntry): RehearsalNight {
  const plot = PLOTS[which];
  const night = placeNight(PREPARED_PLACE, NIGHT, USUAL_MOON);
  const events = nightEvents(night.sky);
  const sunsetMs = events.horizon.kind === "passes" ? events.horizon.downMs : null;
  // Winter time is an hour ahead of UTC.
  const at = (localHour: number): UtcMs => utcMs(Date.parse(`${NIGHT}T00:00:00Z`) + (localHour - 1) * HOUR_MS);
  const hours = Array.from({ length: HOURS }, (_, i): HourForecast => {
    const hour = FIRST_HOUR + i;
    return { startMs: at(hour), ...USUAL_HOUR, ...plot.forecast(hour) };
  });
  const startMs = at(FIRST_HOUR);
  const moments = Array.from({ length: (HOURS * HOUR_MS) / MOMENT_MS }, (_, i) => {
    const hour = FIRST_HOUR + (i * MOMENT_MS) / HOUR_MS;
    const { airC, dewC, gustKmh, seeingArcsec } = { ...USUAL_HOUR, ...plot.forecast(hour) };
    return { passes: 1, airC, dewC, gustKmh, seeingArcsec, ...plot.was(hour) };
  });
  const weather: TrueWeather = { startMs, moments };
  const rigs = plot.rigs.map(({ rig, work }, i): RehearsalRig => {
    const first = targetNight(night, target.at, work[0]![0].channel);
    const transitMs = nextTransitMs(night.sky, first.ofDate);
    const items = work.map(([filter, subSec, subs]): WorkItem => ({
      projectId: "prepared",
      panel: "P1",
      channel: filter.channel,
      filterName: filter.name,
      subSec,
      subs,
      need: filter.name,
      stage: 0,
      inOrder: true,
      windows: targetNight(night, target.at, filter.channel).windows.flatMap(
        (w) =>
          w.startMs < at(plot.untilLocal) ? [{ startMs: w.startMs, endMs: utcMs(Math.min(w.endMs, at(plot.untilLocal))) }] : [], // prettier-ignore
      ),
      transitMs,
    }));
    const sheet = runSheet(items, rig.overheads, {
      flips: rig.flipsAtMeridian,
      standsBeforeDark: true,
      sunsetMs,
      starsMs: sunsetMs === null ? null : utcMs(sunsetMs + 40 * MINUTE_MS),
    });
    const of = { projectId: "prepared", panel: "P1" };
    return {
      rigId: `prepared-${i + 1}`,
      rig,
      filters: Object.fromEntries(work.map(([f]) => [f.name, f])),
      sheet,
      names: { prepared: target.name || target.id },
      subjects: { prepared: subjectOf(target) },
      pointings: { [panelKey(of)]: { pointing: target.at, positionAngleDeg: 0 } },
      skies: Object.fromEntries(work.map(([f]) => [skyKey({ ...of, channel: f.channel }), panelSky(night, target.at, f.channel)])), // prettier-ignore
      darksMin: 120,
      focusPerC: 2,
    };
  });
  return {
    night: NIGHT,
    memberId: "prepared",
    site: PREPARED_PLACE,
    zenithSkyMag: PREPARED_PLACE.skyMagPerArcsec2,
    hours,
    rigs,
    weather,
  };
}
