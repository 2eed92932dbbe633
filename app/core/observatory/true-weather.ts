import { normalFrom, randomFrom } from "~/core/numeric";
import { HOUR_MS, MINUTE_MS, type UtcMs } from "~/core/time";
import { drawnSky, HOURLY_LIKENESS } from "~/core/weather";

/** An hour of a night as it is forecast. */
export interface HourForecast {
  readonly startMs: UtcMs;
  /** That it is usable, [0, 1]. */
  readonly odds: number;
  readonly airC: number;
  readonly dewC: number;
  readonly gustKmh: number;
  /** At the zenith, arcsec. */
  readonly seeingArcsec: number;
}

/** A few minutes of a night as they were. */
export interface SkyMoment {
  /** Share of light that cloud lets through: 1 = none there. */
  readonly passes: number;
  readonly airC: number;
  readonly dewC: number;
  readonly gustKmh: number;
  readonly seeingArcsec: number;
}

/** A night as it was, in steps. */
export interface TrueWeather {
  readonly startMs: UtcMs;
  readonly moments: readonly SkyMoment[];
}

export const MOMENT_MS = 5 * MINUTE_MS;
const PER_HOUR = HOUR_MS / MOMENT_MS;
const [THIN, THICK] = [0.4, 0.03]; // what thin and thick cloud let through; proposals of this project
const THIN_SIGMA = 0.15; // so near to turning cloud is thin
const OPEN = 0.7; // a sky that lets less through spoils a sub; a proposal

/** Whether a sub can be taken under it. */
export const isOpen = ({ passes }: SkyMoment): boolean => passes >= OPEN;

/** Wanders about 1, as seeing and wind do: the log of it has a σ of `spread` and is correlated from step to step. */
function* wander(random: () => number, spread: number, likeness: number): Generator<number, never> {
  const normal = normalFrom(random);
  for (let x = normal(); ; x = likeness * x + Math.sqrt(1 - likeness ** 2) * normal()) yield Math.exp(spread * x);
}

const between = (list: readonly number[], at: number): number => {
  const i = Math.max(0, Math.min(list.length - 1, Math.floor(at)));
  const next = list[Math.min(list.length - 1, i + 1)]!;
  return list[i]! + (next - list[i]!) * Math.max(0, Math.min(1, at - i));
};

/**
 * Draws a night from its forecast: cloud by the odds of each hour, with persistence, so that over many seeds every hour is clear as often as
 * it was forecast; air as forecast, within a degree; seeing and gusts about their forecast. The same seed, the same night. Hours follow
 * each other without a gap.
 */
export function drawnWeather(hours: readonly HourForecast[], seed: number): TrueWeather {
  const random = randomFrom(seed);
  const steps = hours.length * PER_HOUR;
  const hourOf = (i: number) => hours[Math.floor(i / PER_HOUR)]!;
  const open = drawnSky(
    Array.from({ length: steps }, (_, i) => hourOf(i).odds),
    HOURLY_LIKENESS ** (1 / PER_HOUR),
    random,
  );
  const offC = (random() - 0.5) * 2;
  const [seeing, gusts] = [wander(random, 0.15, 0.97), wander(random, 0.25, 0.9)];
  const [airs, dews] = [hours.map((h) => h.airC), hours.map((h) => h.dewC)];
  const moments = open.map((o, i): SkyMoment => {
    const at = (i + 0.5) / PER_HOUR - 0.5;
    return {
      passes: o > 0 ? 1 : o > -THIN_SIGMA ? THIN : THICK,
      airC: between(airs, at) + offC,
      dewC: between(dews, at),
      gustKmh: hourOf(i).gustKmh * gusts.next().value,
      seeingArcsec: hourOf(i).seeingArcsec * seeing.next().value,
    };
  });
  return { startMs: hours[0]?.startMs ?? (0 as UtcMs), moments };
}

/** A night as it was at an instant; before and after it as at its ends. */
export function momentAt(weather: TrueWeather, ms: number): SkyMoment {
  const i = Math.floor((ms - weather.startMs) / MOMENT_MS);
  return weather.moments[Math.max(0, Math.min(weather.moments.length - 1, i))]!;
}
