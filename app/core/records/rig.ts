import {
  CAMERA_FIELDS,
  CHECK_WORDS,
  FOCUS_FIELDS,
  MOST_CHECKS,
  OPTICS_FIELDS,
  SLOT_FIELD,
  SENSOR_FIELDS,
  OVERHEAD_FIELDS,
  MOUNT_FIELDS,
  POWER_FIELDS,
  SETTING_NAME,
  SETTING_FIELDS,
  MOST_SETTINGS,
  WARM_FIELD,
  LIMIT_FIELDS,
} from "./rig-fields";
import Joi from "joi";
import {
  CARE_OCCASIONS,
  CARE_PARTS,
  type CameraSetting,
  type CareOccasion,
  type CarePart,
  type Overheads,
  type OwnCheck,
  type Power,
  type Rig,
  type RigCare,
  type SubLimits,
} from "~/core/exposure";
import type { SensorGeometry } from "~/core/framing";
import { id, name, numberOf, numbersOf, textOf } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

const isTrue = Joi.boolean();

export const rig: RecordSchema<Rig> = {
  version: 6,
  migrations: [
    (data) => data, // 1 → 2: settings of the camera and the warmth of an uncooled sensor can be given
    (data) => data, // 2 → 3: a mount in altitude and azimuth, what is typical of its class, and power can be given
    (data) => data, // 3 → 4: a photo camera can be one as it is sold
    (data) => data, // 4 → 5: its owner's limits for subs can be given
    (data) => data, // 5 → 6: its owner's own checklist, and the change of air that loses its focus, can be kept with it
  ],
  schema: objectOf<Rig>({
    name,
    ...numbersOf(OPTICS_FIELDS),
    sensor: objectOf<SensorGeometry>(numbersOf(SENSOR_FIELDS)),
    ...numbersOf(CAMERA_FIELDS),
    isColour: isTrue.label("Colour camera"),
    isStock: isTrue.optional().label("Photo camera as sold"),
    cameraName: textOf({ label: "Name in its files", max: 4000 }),
    isCooled: isTrue.label("Cooled"),
    isGuided: isTrue.label("Guided"),
    rotator: Joi.string().valid("none", "manual", "motor").label("Rotator"),
    flipsAtMeridian: isTrue.label("Flips at the meridian"),
    filterIds: Joi.array().items(id).label("Filters"),
    overheads: objectOf<Overheads>(numbersOf(OVERHEAD_FIELDS)),
    longestUnguidedSec: numberOf(MOUNT_FIELDS.longestUnguidedSec),
    gustLimitKmh: numberOf(MOUNT_FIELDS.gustLimitKmh).optional(),
    refocusC: numberOf(FOCUS_FIELDS.refocusC).optional(),
    settings: Joi.array()
      .max(MOST_SETTINGS)
      .items(objectOf<CameraSetting>({ name: textOf(SETTING_NAME), ...numbersOf(SETTING_FIELDS) }))
      .unique("name")
      .optional()
      .label("Camera settings"),
    aboveAirC: numberOf(WARM_FIELD.aboveAirC).optional(),
    slotMm: numberOf(SLOT_FIELD.slotMm).optional(),
    isAltAz: isTrue.optional().label("Moves in altitude and azimuth"),
    typical: Joi.array()
      .items(textOf({ label: "Value", max: 40, isRequired: true }))
      .max(40)
      .unique()
      .optional()
      .label("Typical of its class"),
    power: objectOf<Power>({
      ...numbersOf(POWER_FIELDS),
      chemistry: Joi.string().valid("lithium", "lead").label("Kind of battery"),
    }).optional(),
    limits: objectOf<SubLimits>({
      fwhmPx: numberOf(LIMIT_FIELDS.fwhmPx).optional(),
      eccentricity: numberOf(LIMIT_FIELDS.eccentricity).optional(),
      stars: numberOf(LIMIT_FIELDS.stars).optional(),
      background: numberOf(LIMIT_FIELDS.background).optional(),
    }).optional(),
    care: objectOf<RigCare>({
      own: Joi.array()
        .max(MOST_CHECKS)
        .items(
          objectOf<OwnCheck>({
            id,
            part: Joi.string<CarePart>().valid(...CARE_PARTS),
            occasion: Joi.string<CareOccasion>().valid(...CARE_OCCASIONS),
            words: textOf(CHECK_WORDS),
            insteadOf: id.optional(),
          }),
        )
        .unique("id")
        .label("Own checks"),
      without: Joi.array().max(MOST_CHECKS).items(id).unique().label("Checks left out"),
    })
      .optional()
      .label("Checklist"),
  }),
};
