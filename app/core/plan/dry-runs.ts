import { HOUR_MS, addMs, MINUTE_MS, type UtcMs } from "~/core/time";
import type { WeatherHour } from "~/core/weather";

const RAIN_CHANCE = 0.3; // of the sources together: from here on gear stays under a roof; a proposal of this project
const RAIN_MARGIN_MS = 30 * MINUTE_MS;

/** Whether rain is likely enough in an hour that gear stays under a roof. */
export const isWet = (h: WeatherHour): boolean => (h.rainOdds ?? h.rainChance ?? 0) >= RAIN_CHANCE;

/** A run of hours without rain: numbers of its first and last, when everything stays covered until, and by when it is covered again. */
interface DryRun {
  readonly from: number;
  readonly to: number;
  readonly untilMs: UtcMs | null;
  readonly deadlineMs: UtcMs | null;
}

/** The hours from an instant on between rains. */
function dryRuns(weather: readonly WeatherHour[], fromMs: UtcMs): DryRun[] {
  const runs: DryRun[] = [];
  let start: number | null = null;
  let untilMs: UtcMs | null = null;
  weather.forEach((h, i) => {
    if (h.atMs + HOUR_MS <= fromMs) return;
    if (isWet(h)) {
      if (start !== null) runs.push({ from: start, to: i - 1, untilMs, deadlineMs: addMs(h.atMs, -RAIN_MARGIN_MS) });
      [start, untilMs] = [null, addMs(h.atMs, HOUR_MS)];
    } else start ??= i;
  });
  if (start !== null) runs.push({ from: start, to: weather.length - 1, untilMs, deadlineMs: null });
  return runs;
}

/** The run between rains that gives most, by what each of its hours gives; null where it rains through. */
export function bestDryRun(
  weather: readonly WeatherHour[],
  fromMs: UtcMs,
  gives: (i: number) => number,
): DryRun | null {
  const sum = ({ from, to }: DryRun) => {
    let all = 0;
    for (let i = from; i <= to; i++) all += gives(i);
    return all;
  };
  return dryRuns(weather, fromMs).reduce<DryRun | null>(
    (best, run) => (!best || sum(run) > sum(best) ? run : best),
    null,
  );
}

/** When everything has to be under a roof: half an hour before the rain that ends the best dry hours from `fromMs` on; null = no rain after those. */
export function rainDeadline(weather: readonly WeatherHour[], fromMs: UtcMs): UtcMs | null {
  const run = bestDryRun(weather, fromMs, (i) => weather[i]!.odds);
  if (run) return run.deadlineMs;
  const first = weather.find((h) => h.atMs + HOUR_MS > fromMs);
  return first ? addMs(first.atMs, -RAIN_MARGIN_MS) : null;
}

/** Until when it rains, where a night begins with rain and something dry follows; null = it does not. */
export function rainUntil(weather: readonly WeatherHour[]): UtcMs | null {
  const dry = weather.findIndex((h) => !isWet(h));
  return dry > 0 ? weather[dry]!.atMs : null;
}
