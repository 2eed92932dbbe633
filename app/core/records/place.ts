import { PLACE_FIELDS, AWAY_FIELDS, THING_NAME, ALTITUDE, AROUND_FIELDS } from "./place-fields";
import Joi from "joi";
import type { Place } from "~/core/night";
import type { Landmark, LightDome, Lamp, SkylinePoint } from "~/core/sky";
import { azimuthDeg, name, numberOf, numbersOf, share, textOf, timeZone } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

const thingName = textOf(THING_NAME);
const around = AROUND_FIELDS;

/** A skyline of rising azimuths; a single point would wall in the whole sky. */
const skyline = Joi.array()
  .items(objectOf<SkylinePoint>({ azimuthDeg, altitudeDeg: numberOf(ALTITUDE) }))
  .max(3600)
  .custom((v: readonly SkylinePoint[], h) =>
    v.length !== 1 && v.every((p, i) => i === 0 || v[i - 1]!.azimuthDeg < p.azimuthDeg) ? v : h.error("skyline.base"),
  )
  .messages({ "skyline.base": "{{#label}} must have no or several points, by rising azimuth" })
  .label("Skyline");

export const place: RecordSchema<Place> = {
  version: 2,
  migrations: [(data) => data], // 1 → 2: what of it is a guess by words can be marked
  schema: objectOf<Place>({
    name,
    ...numbersOf(PLACE_FIELDS),
    timeZone,
    skyline,
    clearChance: Joi.array().length(12).items(share).label("Chance of a clear night by month"),
    landmarks: Joi.array()
      .max(60)
      .items(
        objectOf<Landmark>({
          name: thingName,
          shape: Joi.string().valid("box", "pole", "tree"),
          azimuthDeg,
          widthDeg: numberOf({ ...around.landmarks.widthDeg, min: 0, isAboveMin: true }),
          altitudeDeg: numberOf({ ...around.landmarks.altitudeDeg, min: 0, isAboveMin: true }),
        }),
      )
      .optional()
      .label("Landmarks"),
    domes: Joi.array()
      .max(24)
      .items(
        objectOf<LightDome>({
          name: thingName,
          azimuthDeg,
          magPerArcsec2: numberOf(around.domes.magPerArcsec2),
          widthDeg: numberOf(around.domes.widthDeg),
        }),
      )
      .optional()
      .label("Glow of towns"),
    lamps: Joi.array()
      .max(24)
      .items(
        objectOf<Lamp>({
          name: thingName,
          azimuthDeg,
          altitudeDeg: numberOf(around.lamps.altitudeDeg),
          radiusDeg: numberOf({ ...around.lamps.radiusDeg, min: 0, isAboveMin: true }),
        }),
      )
      .optional()
      .label("Lamps"),
    travelMin: numberOf(AWAY_FIELDS.travelMin).optional(),
    extraSetUpMin: numberOf(AWAY_FIELDS.extraSetUpMin).optional(),
    windShare: share.optional(),
    typical: Joi.array()
      .items(textOf({ label: "Value", max: 40, isRequired: true }))
      .max(40)
      .unique()
      .optional()
      .label("Typical of its kind"),
  }),
};
