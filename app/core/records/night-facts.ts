import { NIGHT_FIELDS, TIME_FIELDS } from "./night-facts-fields";
import Joi from "joi";
import { LOST_CAUSES, TRAIN_PARTS, type NightFacts } from "~/core/ledger";
import { id, night, note, numberOf } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

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
