import { parseNumber } from "~/core/notation";
import type { ForecastHour } from "~/core/weather";
import { err, ok, type Result } from "~/core/result";
import { HOUR_MS, utcMs, utcOffsetMinutes, type UtcInterval, type UtcMs } from "~/core/time";
import { forecastHour } from "./forecast-json";

/** What is wrong with a typed line, counted from 1. */
export interface TypedFault {
  readonly code: "typedLine" | "typedHour" | "typedCloud" | "typedGust" | "typedRain" | "typedOutside" | "typedNothing";
  readonly line: number;
  readonly text: string;
}

/** A stretch an hour is 24 lines. */
const MOST_LETTERS = 20_000;
const LONGEST_LINE = 80;
const LINE =
  /^(\d{1,2})(?::?00)?\s*[-–]\s*(\d{1,2})(?::?00)?\s+(\S+?)\s*%?(?:\s+(?!rain)(\S+?)\s*(?:km\/h)?)?(?:,?\s+rain\s+(\S+?)\s*%?)?$/i;

/**
 * Reads a forecast typed by hand, a line for each stretch of local clock hours: "18-23 20" or "23-3 80 35": from, to, cloud in
 * percent, gusts in km/h if known, and last the chance of rain where there is one: "2-5 90 40 rain 60". Words of one's own; the hours of the night window they do not name stay unsaid. Where the
 * clocks change, an hour that comes twice takes the line both times.
 */
export function readTypedForecast(
  text: string,
  at: { readonly window: UtcInterval; readonly zone: string; readonly nowMs: UtcMs },
): Result<readonly ForecastHour[], TypedFault> {
  const byHour = new Map<number, { cloud: number; gustMs: number | null; rain: number | null }>();
  for (const [i, raw] of text.slice(0, MOST_LETTERS).split(/\r?\n/).entries()) {
    const content = raw.split("#")[0]!.trim();
    if (content === "") continue;
    const fault = (code: TypedFault["code"]) => err({ code, line: i + 1, text: raw.trim().slice(0, LONGEST_LINE) });
    const match = content.length > LONGEST_LINE ? null : LINE.exec(content);
    if (!match) return fault("typedLine");
    const [from, to] = [Number(match[1]), Number(match[2])];
    const cloud = parseNumber(match[3]!);
    const gust = match[4] === undefined ? null : parseNumber(match[4]);
    if (from > 24 || to > 24 || from === to) return fault("typedHour");
    if (cloud === null || cloud < 0 || cloud > 100) return fault("typedCloud");
    if (match[4] !== undefined && (gust === null || gust < 0 || gust > 400)) return fault("typedGust");
    const rain = match[5] === undefined ? null : parseNumber(match[5]);
    if (match[5] !== undefined && (rain === null || rain < 0 || rain > 100)) return fault("typedRain");
    for (let h = from % 24; h !== to % 24; h = (h + 1) % 24)
      byHour.set(h, {
        cloud: cloud / 100,
        gustMs: gust === null ? null : gust / 3.6,
        rain: rain === null ? null : rain / 100,
      });
  }
  if (byHour.size === 0) return err({ code: "typedNothing", line: 1, text: "" });
  const hours: ForecastHour[] = [];
  const first = Math.ceil(at.window.startMs / HOUR_MS) * HOUR_MS;
  for (let ms = first; ms < at.window.endMs; ms += HOUR_MS) {
    if (ms + HOUR_MS <= at.nowMs) continue;
    const local = new Date(ms + utcOffsetMinutes(at.zone, utcMs(ms)) * 60_000).getUTCHours();
    const said = byHour.get(local);
    if (said)
      hours.push(
        forecastHour(utcMs(ms), utcMs(Math.min(at.nowMs, ms)), {
          lowCloud: said.cloud,
          gustMs: said.gustMs,
          rainChance: said.rain,
        }),
      );
  }
  return hours.length > 0 ? ok(hours) : err({ code: "typedOutside", line: 1, text: text.trim().slice(0, 40) });
}
