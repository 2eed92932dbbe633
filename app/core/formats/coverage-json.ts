import Joi from "joi";
import { err, ok, type Result } from "~/core/result";
import { FORECAST_VARIABLES } from "./forecast-json";
import { MAX_FORECAST_BYTES } from "./forecast-size";
import { readJson } from "./json-text";

/**
 * A point's series out of CoverageJSON (OGC 21-069r2), as services by OGC API - Environmental Data Retrieval (OGC 19-086r6) answer
 * position queries. Parameters are known by their CF standard names, units by their UCUM codes.
 */
export interface CoverageFault {
  readonly code: "coverageNotJson" | "coverageForeign" | "coverageNoSeries";
  readonly found: string;
}

/** Who is asked, where and when. */
export interface CoverageAbout {
  readonly id: string;
  readonly name: string;
  /** As the service wants to be named; "" = it asks for nothing. */
  readonly credit: string;
  readonly latitudeDeg: number;
  readonly longitudeDeg: number;
  /** When the service says that it was made, else when it was asked; ISO 8601. */
  readonly issued: string;
}

const text = Joi.string().allow("").max(400);
const i18n = Joi.alternatives(text, Joi.object().pattern(Joi.string(), text));
const AXIS = Joi.object({ values: Joi.array().items(Joi.alternatives(Joi.number(), text)).max(2000) }).unknown(true);
const PARAMETER = Joi.object({
  observedProperty: Joi.object({ id: text, label: i18n }).unknown(true).required(),
  unit: Joi.object({
    symbol: Joi.alternatives(text, Joi.object({ value: text.required(), type: text }).unknown(true)),
    label: i18n,
  }).unknown(true),
}).unknown(true);
const RANGE = Joi.object({
  type: Joi.string().required(),
  axisNames: Joi.array().items(Joi.string().max(40)).max(8),
  shape: Joi.array().items(Joi.number().integer().min(0)).max(8),
  values: Joi.array().items(Joi.number().allow(null)).max(20_000),
}).unknown(true);
const COVERAGE = Joi.object({
  type: Joi.string().valid("Coverage").required(),
  domain: Joi.object({ axes: Joi.object().pattern(Joi.string(), AXIS).required() })
    .unknown(true)
    .required(),
  parameters: Joi.object().pattern(Joi.string().max(120), PARAMETER).max(200),
  ranges: Joi.object().pattern(Joi.string().max(120), Joi.alternatives(RANGE, text)).max(200).required(),
}).unknown(true);

interface Parameter {
  readonly observedProperty: { readonly id?: string; readonly label?: unknown };
  readonly unit?: { readonly symbol?: string | { readonly value: string } };
}
interface Range {
  readonly type: string;
  readonly axisNames?: readonly string[];
  readonly shape?: readonly number[];
  readonly values?: readonly (number | null)[];
}
interface Coverage {
  readonly domain: { readonly axes: Readonly<Record<string, { readonly values?: readonly unknown[] }>> };
  readonly parameters?: Readonly<Record<string, Parameter>>;
  readonly ranges: Readonly<Record<string, Range | string>>;
}

/** UCUM codes of what a forecast has, and the same units as files of this app write them. */
const UNITS: Readonly<Record<string, string>> = {
  "1": "1", "": "1", "{fraction}": "1", "%": "%", Cel: "degC", K: "K", "[degF]": "degF", "m/s": "m s-1", "m.s-1": "m s-1", "km/h": "km h-1", "km.h-1": "km h-1",
  "[kn_i]": "kt", "''": "arcsec", "[mi_i]/h": "mi h-1", mag: "mag",
}; // prettier-ignore
const KNOWN = new Map(FORECAST_VARIABLES.map((v) => [v.name, v]));
const WIND = ["eastward_wind", "northward_wind"] as const;
const TOTAL_CLOUD = "cloud_area_fraction";

/** The standard name that a parameter stands for: the end of its property's address, else its own key. */
function standardName(key: string, { observedProperty }: Parameter): string {
  const end =
    (observedProperty.id ?? "")
      .split(/[/#]/)
      .filter((p) => p !== "")
      .at(-1) ?? "";
  return KNOWN.has(end) || end === TOTAL_CLOUD || (WIND as readonly string[]).includes(end)
    ? end
    : KNOWN.has(key)
      ? key
      : end || key;
}

/** The values of a range along time, where it has one value an instant; null otherwise. */
function alongTime(range: Range | string, count: number): readonly (number | null)[] | null {
  if (typeof range === "string" || range.type !== "NdArray" || !range.values) return null;
  const { axisNames = ["t"], shape = [range.values.length] } = range;
  const other = shape.filter((_, i) => axisNames[i] !== "t").every((n) => n === 1);
  return other && range.values.length === count ? range.values : null;
}

const unitOf = ({ unit }: Parameter): string => {
  const symbol = unit?.symbol;
  return typeof symbol === "string" ? symbol : (symbol?.value ?? "");
};

/** Converts an answer into a forecast of this app (docs/formats.md); what it does not know is left out by name. */
export function forecastOfCoverage(answer: string, about: CoverageAbout): Result<string, CoverageFault> {
  if (answer.length > MAX_FORECAST_BYTES)
    return err({ code: "coverageForeign", found: `${Math.round(answer.length / 1e6)} MB` });
  const json = readJson(answer);
  if (!json.ok) return err({ code: "coverageNotJson", found: json.error.found });
  const raw = json.value as {
    readonly type?: unknown;
    readonly coverages?: unknown;
    readonly parameters?: unknown;
  } | null;
  const first =
    raw?.type === "CoverageCollection" && Array.isArray(raw.coverages)
      ? { parameters: raw.parameters, ...(raw.coverages[0] as object | null) }
      : raw;
  const checked = COVERAGE.validate(first, { convert: false, errors: { wrap: { label: false } } });
  if (checked.error) return err({ code: "coverageForeign", found: checked.error.message.slice(0, 160) });
  const { domain, parameters = {}, ranges } = checked.value as Coverage;
  const time = domain.axes["t"]?.values ?? [];
  if (time.length === 0) return err({ code: "coverageNoSeries", found: Object.keys(domain.axes).join(", ") });
  const units: Record<string, string> = {};
  const series: Record<string, readonly (number | null)[]> = {};
  const leftOut: { variable: string; why: string }[] = [];
  for (const [key, parameter] of Object.entries(parameters)) {
    const name = standardName(key, parameter);
    const range = ranges[key];
    if (range === undefined) continue;
    if (!KNOWN.has(name) && name !== TOTAL_CLOUD && !(WIND as readonly string[]).includes(name)) {
      leftOut.push({ variable: name, why: "not used" });
      continue;
    }
    const values = alongTime(range, time.length);
    if (!values) {
      leftOut.push({ variable: name, why: "not one value an instant" });
      continue;
    }
    const code = unitOf(parameter);
    series[name] = values;
    units[name] = Object.hasOwn(UNITS, code) ? UNITS[code]! : code; // an unknown one is named by whoever reads it
  }
  const [east, north] = WIND.map((w) => series[w]);
  if (!series["wind_speed"] && east && north && units[WIND[0]] === units[WIND[1]]) {
    series["wind_speed"] = east.map((e, i) => (e === null || north[i] == null ? null : Math.hypot(e, north[i])));
    units["wind_speed"] = units[WIND[0]]!;
  }
  const total = series[TOTAL_CLOUD];
  if (total && !["low", "medium", "high"].some((l) => series[`${l}_type_cloud_area_fraction`])) {
    series["low_type_cloud_area_fraction"] = total; // without layers, all of it counts in full
    units["low_type_cloud_area_fraction"] = units[TOTAL_CLOUD]!;
    leftOut.push({ variable: TOTAL_CLOUD, why: "without layers: counted as low cloud" });
  }
  for (const name of [...WIND, TOTAL_CLOUD]) {
    delete series[name];
    delete units[name];
  }
  const { id, name, credit, latitudeDeg, longitudeDeg, issued } = about;
  return ok(
    JSON.stringify({
      format: "zenithar-forecast",
      version: 1,
      source: { id, name, ...(credit ? { credit } : {}) },
      place: { latitude: latitudeDeg, longitude: longitudeDeg },
      issued,
      units,
      time,
      leftOut,
      ...series,
    }),
  );
}
