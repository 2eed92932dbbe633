import { CAMERA_FIELDS } from "./contribution-fields";
import Joi from "joi";
import type { CalibrationData } from "~/core/ledger";
import { id, instantMs, numberOf, textOf } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

export const calibration: RecordSchema<CalibrationData> = {
  version: 3,
  migrations: [
    (data) => data, // 1 → 2: offset, binning and camera angle can be said
    (data) => data, // 2 → 3: that it is simulated
  ],
  schema: objectOf<CalibrationData>({
    type: Joi.string().valid("dark", "flat", "bias", "darkFlat").label("Type"),
    memberId: id,
    camera: textOf({ label: "Camera", max: 4000 }),
    exposureSec: numberOf({ label: "Exposure", unit: "s", min: 0, max: 36_000 }),
    gain: Joi.number().allow(null).label("Gain"),
    temperatureC: Joi.number().allow(null).label("Sensor temperature").unit("°C"),
    filter: textOf({ label: "Filter", max: 4000 }),
    startMs: instantMs.allow(null),
    fileName: textOf({ label: "File", max: 4000 }),
    offset: numberOf(CAMERA_FIELDS.offset).optional(),
    binning: numberOf(CAMERA_FIELDS.binning).optional(),
    positionAngleDeg: numberOf({ label: "Camera angle", unit: "°", min: -360, max: 360 }).optional(),
    isSimulated: Joi.boolean().valid(true).optional().label("Simulated"),
  }),
};
