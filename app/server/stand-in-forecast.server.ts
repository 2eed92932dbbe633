import { HOUR_MS } from "~/core/time";
import { chanceOf, noise, pretendedHour, type PretendedHour } from "./stand-in-sky.server";

/** How one of the simulated services behaves: how often and how late it computes, and how it errs. */
interface Habit {
  readonly name: string;
  readonly seed: number;
  readonly everyHours: number;
  readonly lateHours: number;
  /** Added to every cover. */
  readonly bias: number;
  /** Share of invention at once and after 48 h. */
  readonly error: readonly [number, number];
  /** Fronts come this many hours early or late at most. */
  readonly driftHours: number;
  readonly hasHighCloud: boolean;
  /** How often a request fails or hangs, and how often an answer holds nonsense. */
  readonly failing: number;
  readonly hanging: number;
  readonly nonsense: number;
}

const HABITS: Readonly<Record<string, Habit>> = {
  tern: {
    name: "Tern coastal model",
    seed: 11,
    everyHours: 6,
    lateHours: 1,
    bias: -0.06,
    error: [0.08, 0.35],
    driftHours: 2,
    hasHighCloud: true,
    failing: 0.03,
    hanging: 0,
    nonsense: 0,
  },
  larch: {
    name: "Larch valley ensemble",
    seed: 23,
    everyHours: 12,
    lateHours: 5,
    bias: 0.1,
    error: [0.15, 0.4],
    driftHours: 4,
    hasHighCloud: true,
    failing: 0.05,
    hanging: 0.12,
    nonsense: 0,
  },
  quartz: {
    name: "Quartz quick look",
    seed: 37,
    everyHours: 3,
    lateHours: 0.5,
    bias: 0,
    error: [0.3, 0.7],
    driftHours: 5,
    hasHighCloud: false,
    failing: 0.3,
    hanging: 0.05,
    nonsense: 0.25,
  },
};

/** What a test or a curious person may ask of a service by ZENITHAR_SERVICES, for example "quartz:down,larch:hang". */
export type Trouble = "down" | "hang" | "nonsense" | "fine";

/** What the pretended outside world answers. */
export interface StandInAnswer {
  readonly status: number;
  readonly delayMs: number;
  readonly body: string;
}

/** Reads ZENITHAR_SERVICES; words it does not know are passed over. */
export function troubleOf(sourceId: string, setting: string | undefined): Trouble | null {
  const word = (setting ?? "").split(",").find((part) => part.trim().startsWith(`${sourceId}:`));
  const trouble = word?.split(":")[1]?.trim();
  return trouble === "down" || trouble === "hang" || trouble === "nonsense" || trouble === "fine" ? trouble : null;
}

/** Whether there is such a service. */
export const isStandIn = (sourceId: string): boolean => Object.hasOwn(HABITS, sourceId);

const HOURS = 72;
const round = (v: number, digits: number) => Number(v.toFixed(digits));
const clamp01 = (v: number) => Math.min(1, Math.max(0, v));

/** One service's view of an hour: the pretended truth, drifted, biased, and the more invented the further ahead. */
function viewOf(habit: Habit, at: { lat: number; lon: number; ms: number; issuedMs: number }): PretendedHour {
  const lead = clamp01((at.ms - at.issuedMs) / (48 * HOUR_MS));
  const drift = (chanceOf(habit.seed, at.issuedMs / HOUR_MS) - 0.5) * 2 * habit.driftHours * lead * HOUR_MS;
  const truth = pretendedHour(at.lat, at.lon, at.ms + drift);
  const share = habit.error[0] + (habit.error[1] - habit.error[0]) * lead;
  const bent = (v: number, k: number) =>
    clamp01(v * (1 - share) + noise(habit.seed + k, at.ms, 8) * share + habit.bias);
  return {
    ...truth,
    low: bent(truth.low, 1),
    middle: bent(truth.middle, 2) * 0.8,
    high: bent(truth.high, 3) * 0.8,
    airC: truth.airC + 3 * (noise(habit.seed + 4, at.ms, 24) - 0.5),
    gustMs: truth.gustMs * (0.85 + 0.3 * noise(habit.seed + 5, at.ms, 12)),
    rain: clamp01(truth.rain + 0.1 * (noise(habit.seed + 6, at.ms, 10) - 0.5)),
  };
}

/** The last issue that is out at an instant. */
function issueOf(habit: Habit, nowMs: number): number {
  const every = habit.everyHours * HOUR_MS;
  const out = Math.floor((nowMs - habit.lateHours * HOUR_MS) / every) * every;
  return chanceOf(habit.seed, 7, out / HOUR_MS) < 0.15 ? out - every : out; // now and then a run is skipped
}

/** A forecast file of a service as it stands at `nowMs` (docs/formats.md). */
export function standInForecast(sourceId: string, at: { lat: number; lon: number; nowMs: number }): object {
  const habit = HABITS[sourceId]!;
  const issuedMs = issueOf(habit, at.nowMs);
  const times = Array.from({ length: HOURS }, (_, i) => issuedMs + i * HOUR_MS);
  const hours = times.map((ms) => viewOf(habit, { ...at, ms, issuedMs }));
  const column = (of: (h: PretendedHour) => number, digits: number) => hours.map((h) => round(of(h), digits));
  const isPercent = sourceId === "larch";
  return {
    format: "zenithar-forecast",
    version: 1,
    source: { id: sourceId, name: habit.name },
    place: { latitude: at.lat, longitude: at.lon },
    issued: new Date(issuedMs).toISOString(),
    units: {
      low_type_cloud_area_fraction: isPercent ? "%" : "1",
      medium_type_cloud_area_fraction: isPercent ? "%" : "1",
      high_type_cloud_area_fraction: isPercent ? "%" : "1",
      relative_humidity: "%",
      air_temperature: sourceId === "tern" ? "K" : "degC",
      dew_point_temperature: sourceId === "tern" ? "K" : "degC",
      wind_speed: "m s-1",
      wind_speed_of_gust: "m s-1",
      precipitation_probability: "%",
      astronomical_seeing: "arcsec",
      transparency_loss: "mag",
    },
    time: times.map((ms) => new Date(ms).toISOString()),
    low_type_cloud_area_fraction: column((h) => (isPercent ? 100 : 1) * h.low, 3),
    medium_type_cloud_area_fraction: column((h) => (isPercent ? 100 : 1) * h.middle, 3),
    ...(habit.hasHighCloud ? { high_type_cloud_area_fraction: column((h) => (isPercent ? 100 : 1) * h.high, 3) } : {}),
    relative_humidity: column((h) => Math.min(100, 100 * Math.exp(-0.065 * (h.airC - h.dewC))), 0),
    air_temperature: column((h) => h.airC + (sourceId === "tern" ? 273.15 : 0), 1),
    dew_point_temperature: column((h) => Math.min(h.dewC, h.airC) + (sourceId === "tern" ? 273.15 : 0), 1),
    wind_speed: column((h) => h.windMs, 1),
    wind_speed_of_gust: column((h) => h.gustMs, 1),
    precipitation_probability: column((h) => 100 * h.rain, 0),
    ...(sourceId === "quartz"
      ? {}
      : { astronomical_seeing: column((h) => h.seeingArcsec, 1), transparency_loss: column((h) => h.hazeMag, 2) }),
  };
}

/** Turns a good answer into what goes wrong out there: bare NaN, humidity of 180 %, a gap of three hours. */
function spoil(forecast: object): string {
  const f = forecast as Record<string, unknown[]>;
  const cut = (list: unknown[]) => [...list.slice(0, 20), ...list.slice(23)];
  const entries = Object.entries(f).map(([key, value]) => [key, Array.isArray(value) ? cut(value) : value] as const);
  const spoilt: Record<string, unknown> = Object.fromEntries(entries);
  spoilt["relative_humidity"] = (spoilt["relative_humidity"] as number[]).map((v, i) => (i % 5 === 0 ? 180 : v));
  spoilt["wind_speed"] = (spoilt["wind_speed"] as number[]).map((v, i) => (i % 4 === 0 ? "NaN!" : v));
  return JSON.stringify(spoilt).replaceAll('"NaN!"', "NaN");
}

/** One answer of a service, with its habits of failing, hanging and talking nonsense; `attempt` tells repeated requests apart. */
export function standInAnswer(
  sourceId: string,
  at: { lat: number; lon: number; nowMs: number; attempt: number },
  asked: Trouble | null,
): StandInAnswer {
  const habit = HABITS[sourceId]!;
  const luck = chanceOf(habit.seed, 99, at.nowMs / HOUR_MS, at.attempt);
  const trouble: Trouble =
    asked ??
    (luck < habit.failing
      ? "down"
      : luck < habit.failing + habit.hanging
        ? "hang"
        : chanceOf(habit.seed, 98, at.nowMs / HOUR_MS) < habit.nonsense
          ? "nonsense"
          : "fine");
  const forecast = standInForecast(sourceId, at);
  const usualMs = 60 + 200 * luck;
  switch (trouble) {
    case "down":
      return { status: 503, delayMs: usualMs, body: "<html><body>Busy, please come back later.</body></html>" };
    case "hang":
      return { status: 200, delayMs: 60_000, body: "" };
    case "nonsense":
      return { status: 200, delayMs: usualMs, body: spoil(forecast) };
    case "fine":
      return { status: 200, delayMs: usualMs, body: JSON.stringify(forecast) };
  }
}
