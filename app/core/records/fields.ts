import Joi from "joi";
import { FIRST_INSTANT_MS, isNightDate, isTimeZone, LAST_INSTANT_MS } from "~/core/time";
import { AZIMUTH, NAME, type NumberField, type TextField } from "./number-field";

/** The schema of a number. */
export function numberOf(field: NumberField): Joi.NumberSchema {
  const { label, unit, min, max, isWhole, isAboveMin, hint } = field;
  let schema = (isAboveMin ? Joi.number().greater(min) : Joi.number().min(min)).max(max).label(label);
  if (isWhole) schema = schema.integer();
  if (unit) schema = schema.unit(unit);
  return hint ? schema.description(hint) : schema;
}

/** Schemas of a whole table of numbers. */
export const numbersOf = <K extends string>(fields: Readonly<Record<K, NumberField>>): Record<K, Joi.NumberSchema> =>
  Object.fromEntries(Object.entries<NumberField>(fields).map(([key, field]) => [key, numberOf(field)])) as Record<
    K,
    Joi.NumberSchema
  >;

/** The schema of a text. */
export function textOf(field: TextField): Joi.StringSchema {
  const schema = field.isRequired ? Joi.string().trim().min(1) : Joi.string().allow("");
  return schema.max(field.max).label(field.label);
}

const NOTE: TextField = { label: "Note", max: 4000 };

export const name = textOf(NAME);
export const note = textOf(NOTE);
export const id = textOf({ label: "Identifier", max: 120, isRequired: true });
/** An identifier that may be missing. */
export const maybeId = textOf({ label: "Identifier", max: 120 });
export const share = numberOf({ label: "Share", min: 0, max: 1 });
export const azimuthDeg = numberOf(AZIMUTH).less(360);
export const raDeg = numberOf({ label: "Right ascension", unit: "°", min: 0, max: 360 }).less(360);
export const decDeg = numberOf({ label: "Declination", unit: "°", min: -90, max: 90 });
/** Milliseconds since 1970, UTC; of the years 1900 to 2200. */
export const instantMs = Joi.number().min(FIRST_INSTANT_MS).max(LAST_INSTANT_MS).label("Instant").unit("ms");
/** The longest sub anybody takes. */
export const exposureSec = numberOf({ label: "Sub", unit: "s", min: 0, max: 36_000, isAboveMin: true });

/** The evening's date of a night. */
export const night = Joi.string()
  .custom((v: string, h) => (isNightDate(v) ? v : h.error("night.base")))
  .messages({ "night.base": "{{#label}} must be an evening's date such as 2026-12-05" })
  .label("Night")
  .meta({ format: "date" });

/** A time zone by its IANA name. */
export const timeZone = Joi.string()
  .custom((v: string, h) => (isTimeZone(v) ? v : h.error("zone.base")))
  .messages({ "zone.base": "{{#label}} must be an IANA name such as Europe/Rome" })
  .label("Time zone");
