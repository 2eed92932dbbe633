import Joi from "joi";
import { LOST_CAUSES, TRAIN_PARTS, type NightFacts } from "~/core/ledger";
import { id, night, note, numberOf, type NumberField } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

/** Numbers of a night's facts, in the order of a form. */
export const NIGHT_FIELDS = {
  seeingArcsec: { label: "Seeing, FWHM", unit: "″", min: 0.3, max: 20 },
  transparency: { label: "Transparency", unit: "1 to 5", min: 1, max: 5, isWhole: true },
  polarAzimuthArcmin: { label: "Polar error, azimuth", unit: "′", min: -600, max: 600 },
  polarAltitudeArcmin: { label: "Polar error, altitude", unit: "′", min: -600, max: 600 },
  guideRaArcsec: { label: "Guiding RMS, RA", unit: "″", min: 0, max: 60 },
  guideDecArcsec: { label: "Guiding RMS, Dec", unit: "″", min: 0, max: 60 },
  cameraAngleDeg: { label: "Camera angle", unit: "°", min: -360, max: 360 },
  airC: { label: "Air", unit: "°C", min: -60, max: 50 },
  windKmh: { label: "Wind at the mount", unit: "km/h", min: 0, max: 150 },
  focusMoves: { label: "Focus moved", unit: "steps", min: 0, max: 1_000_000, isWhole: true },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Exposure of a night as it was programmed, and what was lost of it, by cause. */
export const TIME_FIELDS = {
  programmedMin: { label: "Exposure programmed", unit: "min", min: 0, max: 2000 },
  lostMin: { label: "Lost", unit: "min", min: 0, max: 2000 },
} as const satisfies Readonly<Record<string, NumberField>>;

const N = NIGHT_FIELDS;

export const nightFacts: RecordSchema<NightFacts> = {
  version: 3,
  // 1 → 2: what was measured, and trouble and cure apart from the note.
  // 2 → 3: what was programmed, and what of it was lost to what.
  migrations: [(data) => ({ trouble: "", cure: "", ...data }), (data) => data],
  schema: objectOf<NightFacts>({
    night,
    placeId: id,
    memberId: id,
    rigId: id.optional(),
    seeingArcsec: numberOf(N.seeingArcsec).optional(),
    transparency: numberOf(N.transparency).optional(),
    polarAzimuthArcmin: numberOf(N.polarAzimuthArcmin).optional(),
    polarAltitudeArcmin: numberOf(N.polarAltitudeArcmin).optional(),
    guideRaArcsec: numberOf(N.guideRaArcsec).optional(),
    guideDecArcsec: numberOf(N.guideDecArcsec).optional(),
    cameraAngleDeg: numberOf(N.cameraAngleDeg).optional(),
    airC: numberOf(N.airC).optional(),
    windKmh: numberOf(N.windKmh).optional(),
    dew: Joi.string().valid("none", "wet", "ice").optional().label("Dew"),
    focusMoves: numberOf(N.focusMoves).optional(),
    programmedMin: numberOf(TIME_FIELDS.programmedMin).optional(),
    lost: Joi.object(Object.fromEntries(LOST_CAUSES.map((c) => [c, numberOf(TIME_FIELDS.lostMin).optional()])))
      .optional()
      .label("Time lost"),
    train: Joi.array()
      .items(Joi.string().valid(...TRAIN_PARTS))
      .max(TRAIN_PARTS.length)
      .unique()
      .optional()
      .label("Changed in the train"),
    trouble: note.label("Trouble"),
    cure: note.label("What cured it"),
    note,
  }),
};
