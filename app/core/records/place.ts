import Joi from "joi";
import type { Place } from "~/core/night";
import type { Landmark, LightDome, Lamp, SkylinePoint } from "~/core/sky";
import {
  AZIMUTH,
  azimuthDeg,
  name,
  numberOf,
  numbersOf,
  share,
  textOf,
  timeZone,
  type NumberField,
  type TextField,
} from "./fields";
import { objectOf, type RecordSchema } from "./kind";

/** Numbers of a place. */
export const PLACE_FIELDS = {
  latitudeDeg: { label: "Latitude", unit: "°, north positive", min: -90, max: 90 },
  longitudeDeg: { label: "Longitude", unit: "°, east positive", min: -180, max: 180 },
  elevationM: { label: "Elevation", unit: "m", min: -430, max: 6000 },
  skyMagPerArcsec2: {
    label: "Darkness",
    unit: "mag/arcsec²",
    min: 14,
    max: 22.2,
    hint: "Moonless zenith. City 18, suburb 19.5, village 20.8, dark site 21.5.",
  },
  minAltitudeDeg: {
    label: "Lowest altitude used",
    unit: "°",
    min: 0,
    max: 80,
    hint: "30 is the usual rule; lower takes what there is.",
  },
  seeingArcsec: { label: "Usual seeing", unit: "″", min: 0.3, max: 10 },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Numbers of a place that one drives to, and of its wind. */
export const AWAY_FIELDS = {
  travelMin: {
    label: "Drive from home, one way",
    unit: "min",
    min: 0,
    max: 1440,
    hint: "0 = at home. Tonight compares the drive with staying.",
  },
  extraSetUpMin: {
    label: "Extra set-up there",
    unit: "min",
    min: 0,
    max: 240,
    hint: "On top of the rig’s own set-up: carrying, levelling.",
  },
} as const satisfies Readonly<Record<string, NumberField>>;

/** The name of something that stands or shines around a place. */
export const THING_NAME: TextField = { label: "Name of it", max: 60 };
const ALTITUDE: NumberField = { label: "Altitude", unit: "°", min: 0, max: 90 };

/** Numbers of what stands and shines around a place, by the list it is in. */
export const AROUND_FIELDS = {
  skyline: { azimuthDeg: AZIMUTH, altitudeDeg: ALTITUDE },
  landmarks: {
    azimuthDeg: AZIMUTH,
    widthDeg: { label: "Wide", unit: "°", min: 0.1, max: 180 },
    altitudeDeg: { label: "High", unit: "°", min: 0.5, max: 90 },
  },
  domes: {
    azimuthDeg: AZIMUTH,
    magPerArcsec2: { label: "Sky towards it at 30°", unit: "mag/arcsec²", min: 12, max: 22.5 },
    widthDeg: { label: "Spreads", unit: "° each way", min: 3, max: 120 },
  },
  lamps: {
    azimuthDeg: AZIMUTH,
    altitudeDeg: { ...ALTITUDE, min: -30 },
    radiusDeg: { label: "Spoils within", unit: "°", min: 0.5, max: 90 },
  },
} as const satisfies Readonly<Record<string, Readonly<Record<string, NumberField>>>>;

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
