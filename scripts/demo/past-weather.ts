import type { RecordKind } from "~/core/crew";
import { readForecast } from "~/core/formats";
import { type Place } from "~/core/night";
import { joinHours, type ForecastHour } from "~/core/weather";
import { nightOf } from "~/core/sky";
import { HOUR_MS, addNights, nightDate, utcMs } from "~/core/time";
import { standInForecast } from "../../app/server/stand-in-forecast.server";
import { pretendedHour } from "../../app/server/stand-in-sky.server";

interface Made {
  readonly kind: RecordKind;
  readonly id: string;
  readonly data: unknown;
}

const SOURCES = ["tern", "larch", "quartz"] as const;

/** What a simulated service says of a place at an instant. */
function saidAt(sourceId: string, place: Place, nowMs: number) {
  const file = standInForecast(sourceId, { lat: place.latitudeDeg, lon: place.longitudeDeg, nowMs });
  const read = readForecast(JSON.stringify(file), { ...place, nowMs: utcMs(nowMs) });
  if (!read.ok) throw new Error(`${sourceId}: ${read.error.code}`);
  return read.value;
}

/**
 * What was told before, joined with what the simulated services say of the nights to come at a place, as a browser has it that asked
 * them at this instant: digit for digit, so that asking again brings nothing new.
 */
export function withPresent(told: readonly Made[], placeId: string, place: Place, nowMs: number): Made[] {
  const all = new Map(told.map((t) => [t.id, t]));
  for (const sourceId of SOURCES) {
    const { sourceName, hours } = saidAt(sourceId, place, nowMs);
    for (const night of new Set(hours.map((h) => nightOf(place, h.atMs)))) {
      const id = `forecast-${placeId}-${sourceId}-${night}`;
      const before = (all.get(id)?.data as { readonly hours: readonly ForecastHour[] } | undefined)?.hours ?? [];
      const mine = hours.filter((h) => nightOf(place, h.atMs) === night);
      const data = { placeId, sourceId, sourceName, night, hours: joinHours(before, mine) };
      all.set(id, { kind: "forecast", id, data });
    }
  }
  return [...all.values()];
}

const FIRST = nightDate("2026-10-14");
const NIGHTS = 52;
const LOOKED_AT = ["19:20", "22:40"] as const;

/**
 * Six weeks of looking up at a place, and what the simulated services had said of those hours that afternoon. Every fourth night
 * nobody looked; on nights with exposures nothing is added to what the log tells.
 */
export function pastWeather(placeId: string, place: Place, shotOn: readonly string[]): Made[] {
  const made: Made[] = [];
  for (let i = 0; i < NIGHTS; i++) {
    const night = addNights(FIRST, i);
    if (i % 4 === 3 || shotOn.includes(night)) continue;
    const looks = LOOKED_AT.map((clock) => Date.parse(`${night}T${clock}:00Z`));
    for (const atMs of looks) {
      const sky = pretendedHour(place.latitudeDeg, place.longitudeDeg, atMs);
      const isClear = (1 - sky.low) * (1 - sky.middle) * (1 - sky.high / 2) > 0.5;
      made.push({ kind: "look", id: `look-${placeId}-${atMs}`, data: { placeId, memberId: "member-ines", atMs, isClear } }); // prettier-ignore
    }
    const nowMs = Date.parse(`${night}T16:00:00Z`);
    for (const sourceId of SOURCES) {
      const said = saidAt(sourceId, place, nowMs);
      const wanted = said.hours.filter((h) => looks.some((ms) => ms >= h.atMs && ms < h.atMs + HOUR_MS));
      const hours = joinHours([], wanted).map((h) =>
        Object.fromEntries(
          Object.entries(h).map(([key, v]) => [key, typeof v === "number" && !key.endsWith("Ms") ? Number(v.toFixed(3)) : v]),
        ),
      ); // prettier-ignore
      made.push({
        kind: "forecast",
        id: `forecast-${placeId}-${sourceId}-${night}`,
        data: { placeId, sourceId, sourceName: said.sourceName, night, hours },
      });
    }
  }
  return made;
}
