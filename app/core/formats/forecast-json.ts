import { MAX_FORECAST_BYTES } from "./forecast-size";
import Joi from "joi";
import type { ForecastHour } from "~/core/weather";
import { readJson } from "./json-text";
import { err, ok, type Result } from "~/core/result";
import { FIRST_INSTANT_MS, HOUR_MS, LAST_INSTANT_MS, utcMs, type UtcMs } from "~/core/time";

/** Why nothing of a forecast can be used. */
export interface ForecastFault {
  readonly code: "forecastNotJson" | "forecastForeign" | "forecastNewer" | "forecastNoTimes" | "forecastOver";
  readonly found: string;
}

/** What of a forecast was left out, while the rest is used. */
export interface ForecastNote {
  readonly code:
    | "missingHours"
    | "notANumber"
    | "outOfRange"
    | "pastHours"
    | "unknownUnit"
    | "wrongLength"
    | "badTimes"
    | "doubleHours"
    | "noCloud"
    | "leftOut"
    | "elsewhere";
  readonly variable: string;
  readonly count: number;
  readonly found: string;
}

/** A forecast as read: what can be used, and what could not. */
export interface ReadForecast {
  readonly sourceId: string;
  readonly sourceName: string;
  readonly issuedMs: UtcMs;
  readonly hours: readonly ForecastHour[];
  readonly notes: readonly ForecastNote[];
}

type Field = Exclude<keyof ForecastHour, "atMs" | "issuedMs">;
type Convert = (value: number) => number;
const same: Convert = (v) => v;
const SHARE: Readonly<Record<string, Convert>> = { "1": same, "%": (v) => v / 100, percent: (v) => v / 100 };
const DEGREES: Readonly<Record<string, Convert>> = {
  degC: same,
  "°C": same,
  K: (v) => v - 273.15,
  degF: (v) => ((v - 32) * 5) / 9,
};
const SPEED: Readonly<Record<string, Convert>> = {
  "m s-1": same,
  "m/s": same,
  "km h-1": (v) => v / 3.6,
  "km/h": (v) => v / 3.6,
  kt: (v) => v * 0.514444,
  "mi h-1": (v) => v * 0.44704,
};

/** A variable of the schema: its name (CF standard names where one exists), the units it may come in, and what is possible. */
interface Variable {
  readonly name: string;
  readonly field: Field;
  readonly units: Readonly<Record<string, Convert>>;
  readonly min: number;
  readonly max: number;
}

/** Variables of a forecast file; the last three have no CF standard name. */
export const FORECAST_VARIABLES: readonly Variable[] = [
  { name: "low_type_cloud_area_fraction", field: "lowCloud", units: SHARE, min: 0, max: 1 },
  { name: "medium_type_cloud_area_fraction", field: "middleCloud", units: SHARE, min: 0, max: 1 },
  { name: "high_type_cloud_area_fraction", field: "highCloud", units: SHARE, min: 0, max: 1 },
  { name: "relative_humidity", field: "humidity", units: SHARE, min: 0.01, max: 1 },
  { name: "air_temperature", field: "airC", units: DEGREES, min: -70, max: 60 },
  { name: "dew_point_temperature", field: "dewC", units: DEGREES, min: -90, max: 40 },
  { name: "wind_speed", field: "windMs", units: SPEED, min: 0, max: 90 },
  { name: "wind_speed_of_gust", field: "gustMs", units: SPEED, min: 0, max: 120 },
  { name: "precipitation_probability", field: "rainChance", units: SHARE, min: 0, max: 1 },
  { name: "astronomical_seeing", field: "seeingArcsec", units: { arcsec: same }, min: 0.2, max: 15 },
  { name: "transparency_loss", field: "hazeMag", units: { mag: same }, min: 0, max: 8 },
];

const MAX_HOURS = 400;
const SCHEMA = Joi.object({
  format: Joi.string().valid("zenithar-forecast").required(),
  version: Joi.number().integer().required(),
  source: Joi.object({ id: Joi.string().min(1).max(60).required(), name: Joi.string().min(1).max(80).required() })
    .unknown(true)
    .required(),
  place: Joi.object({
    latitude: Joi.number().min(-90).max(90).required(),
    longitude: Joi.number().min(-180).max(180).required(),
  })
    .unknown(true)
    .required(),
  issued: Joi.string().isoDate().required(),
  units: Joi.object().pattern(Joi.string(), Joi.string()).required(),
  time: Joi.array().max(MAX_HOURS).required(),
  leftOut: Joi.array()
    .items(Joi.object({ variable: Joi.string().max(120), why: Joi.string().max(120) }))
    .max(200),
}).unknown(true);

interface Wire {
  readonly source: { readonly id: string; readonly name: string };
  readonly place: { readonly latitude: number; readonly longitude: number };
  readonly issued: string;
  readonly units: Readonly<Record<string, string>>;
  readonly leftOut?: readonly { readonly variable: string; readonly why: string }[];
  readonly time: readonly unknown[];
  readonly [variable: string]: unknown;
}

const NOTHING: Readonly<Record<Field, null>> = {
  lowCloud: null, middleCloud: null, highCloud: null, humidity: null, airC: null, dewC: null, windMs: null, gustMs: null, rainChance: null, seeingArcsec: null, hazeMag: null,
}; // prettier-ignore

/** An hour of which only the fields given are said. */
export const forecastHour = (
  atMs: UtcMs,
  issuedMs: UtcMs,
  fields: Partial<Record<Field, number | null>>,
): ForecastHour => ({ atMs, issuedMs, ...NOTHING, ...fields });

function readVariable(wire: Wire, v: Variable, count: number): { values: (number | null)[]; notes: ForecastNote[] } {
  const nothing = Array<null>(count).fill(null);
  const raw = wire[v.name];
  if (raw === undefined) return { values: nothing, notes: [] };
  const note = (code: ForecastNote["code"], n: number, found: unknown): ForecastNote => ({
    code,
    variable: v.name,
    count: n,
    found: String(found).slice(0, 40),
  });
  if (!Array.isArray(raw) || raw.length !== count)
    return { values: nothing, notes: [note("wrongLength", Array.isArray(raw) ? raw.length : 0, count)] };
  const unit = wire.units[v.name] ?? "";
  const convert = Object.hasOwn(v.units, unit) ? v.units[unit] : undefined;
  if (!convert) return { values: nothing, notes: [note("unknownUnit", count, unit)] };
  const notNumbers: unknown[] = [];
  const outside: unknown[] = [];
  const values = raw.map((x: unknown) => {
    if (typeof x !== "number" || !Number.isFinite(x)) {
      notNumbers.push(x);
      return null;
    }
    const value = convert(x);
    if (value < v.min - 1e-9 || value > v.max + 1e-9) {
      outside.push(x);
      return null;
    }
    return value;
  });
  return {
    values,
    notes: [
      ...(notNumbers.length > 0 ? [note("notANumber", notNumbers.length, notNumbers[0])] : []),
      ...(outside.length > 0 ? [note("outOfRange", outside.length, outside[0])] : []),
    ],
  };
}

/** Full hours among `times`, the first of each; what is no time, doubled or missing in between is noted. */
function readTimes(times: readonly unknown[]): { rows: { row: number; atMs: UtcMs }[]; notes: ForecastNote[] } {
  const rows: { row: number; atMs: UtcMs }[] = [];
  const bad: unknown[] = [];
  const seen = new Set<number>();
  let doubled = 0;
  times.forEach((t, row) => {
    const ms = typeof t === "string" && /T.*(Z|[+-]\d\d:?\d\d)$/.test(t) ? Date.parse(t) : Number.NaN;
    if (!(ms >= FIRST_INSTANT_MS && ms <= LAST_INSTANT_MS) || ms % HOUR_MS !== 0) bad.push(t);
    else if (seen.has(ms)) doubled++;
    else {
      seen.add(ms);
      rows.push({ row, atMs: utcMs(ms) });
    }
  });
  rows.sort((a, b) => a.atMs - b.atMs);
  const span = rows.length > 0 ? (rows.at(-1)!.atMs - rows[0]!.atMs) / HOUR_MS + 1 : 0;
  const missing = span - rows.length;
  const note = (code: ForecastNote["code"], count: number, found: unknown = ""): ForecastNote[] =>
    count > 0 ? [{ code, variable: "time", count, found: String(found).slice(0, 40) }] : [];
  return {
    rows,
    notes: [...note("badTimes", bad.length, bad[0]), ...note("doubleHours", doubled), ...note("missingHours", missing)],
  };
}

/**
 * Reads a forecast (docs/formats.md). What can be used is used: values that are no numbers or impossible, variables in unknown
 * units, and hours before the issue or before `nowMs` are left out and noted. Bare NaN, which is no JSON, is taken as missing.
 */
export function readForecast(
  text: string,
  at: { readonly nowMs: UtcMs; readonly latitudeDeg: number; readonly longitudeDeg: number },
): Result<ReadForecast, ForecastFault> {
  if (text.length > MAX_FORECAST_BYTES)
    return err({ code: "forecastForeign", found: `${Math.round(text.length / 1e6)} MB` });
  const json = readJson(text);
  if (!json.ok)
    return err({
      code: json.error.code === "jsonTooDeep" ? "forecastForeign" : "forecastNotJson",
      found: json.error.found,
    });
  const checked = SCHEMA.validate(json.value, { convert: false, errors: { wrap: { label: false } } });
  if (checked.error) return err({ code: "forecastForeign", found: checked.error.message });
  const wire = checked.value as Wire & { readonly version: number };
  if (wire.version > 1) return err({ code: "forecastNewer", found: String(wire.version) });
  const issued = Date.parse(wire.issued);
  if (!(issued >= FIRST_INSTANT_MS && issued <= LAST_INSTANT_MS))
    return err({ code: "forecastForeign", found: `issued ${wire.issued.slice(0, 40)}` });
  const issuedMs = utcMs(issued);
  const times = readTimes(wire.time);
  if (times.rows.length === 0)
    return err({ code: "forecastNoTimes", found: JSON.stringify(wire.time[0] ?? "").slice(0, 40) });
  const kept = times.rows.filter((r) => r.atMs >= issuedMs - HOUR_MS && r.atMs + HOUR_MS > at.nowMs);
  if (kept.length === 0) return err({ code: "forecastOver", found: new Date(times.rows.at(-1)!.atMs).toISOString() });
  const notes = [
    ...times.notes,
    ...(wire.leftOut ?? []).map(({ variable, why }) => ({ code: "leftOut" as const, variable, count: 1, found: why })),
  ];
  const past = times.rows.length - kept.length;
  const isOld = times.rows.some((r) => r.atMs < issuedMs - HOUR_MS);
  if (past > 0 && isOld) notes.push({ code: "pastHours", variable: "time", count: past, found: wire.issued });
  const columns = FORECAST_VARIABLES.map((v) => ({ v, ...readVariable(wire, v, wire.time.length) }));
  notes.push(...columns.flatMap((c) => c.notes));
  const hours = kept.map(({ row, atMs }) =>
    // The hour in which a forecast is issued counts as forecast.
    forecastHour(
      atMs,
      utcMs(Math.min(issuedMs, atMs)),
      Object.fromEntries(columns.map((c) => [c.v.field, c.values[row] ?? null])),
    ),
  );
  if (hours.every((h) => h.lowCloud === null && h.middleCloud === null && h.highCloud === null))
    notes.push({ code: "noCloud", variable: "", count: hours.length, found: "" });
  const eastWest = Math.abs(((wire.place.longitude - at.longitudeDeg + 540) % 360) - 180);
  const off = Math.hypot(wire.place.latitude - at.latitudeDeg, eastWest * Math.cos((at.latitudeDeg * Math.PI) / 180));
  if (off > 0.3)
    notes.push({
      code: "elsewhere",
      variable: "place",
      count: Math.round(off * 111),
      found: `${wire.place.latitude}, ${wire.place.longitude}`,
    });
  return ok({ sourceId: wire.source.id, sourceName: wire.source.name, issuedMs, hours, notes });
}
