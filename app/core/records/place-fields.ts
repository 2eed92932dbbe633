import { type NumberField, type TextField, AZIMUTH } from "./number-field";
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

export const ALTITUDE: NumberField = { label: "Altitude", unit: "°", min: 0, max: 90 };

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
