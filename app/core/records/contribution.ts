import { CAMERA_FIELDS, CONTRIBUTION_FIELDS, MEASURE_FIELDS } from "./contribution-fields";
import Joi from "joi";
import { CULL_REASONS, MOST_STATES, type ContributionData, type KeptBefore, type SubMeasure } from "~/core/ledger";
import { decDeg, exposureSec, id, instantMs, night, note, numberOf, raDeg, textOf } from "./fields";
import { channel } from "./filter";
import { objectOf, type RecordSchema } from "./kind";

export const contribution: RecordSchema<ContributionData> = {
  version: 5,
  migrations: [
    (data) => data, // 1 → 2: where it pointed, and at which gain, can be said
    (data) => data, // 2 → 3: offset, binning, temperature, what its stars were like, and what was kept before
    (data) => data, // 3 → 4: how bright its stars were, what of their shapes is shared, the air and the focuser
    (data) => data, // 4 → 5: that it is simulated
  ],
  schema: objectOf<ContributionData>({
    projectId: id,
    panel: textOf({ label: "Panel", max: 20 }),
    channel,
    night,
    memberId: id,
    rigId: id,
    placeId: id,
    exposureSec,
    taken: numberOf(CONTRIBUTION_FIELDS.taken),
    kept: numberOf(CONTRIBUTION_FIELDS.kept).max(Joi.ref("taken")),
    reason: Joi.string()
      .valid("", ...CULL_REASONS)
      .label("Why not kept"),
    worthRate: numberOf({ label: "Worth of a minute", min: 0, max: 10 }).allow(null),
    startMs: instantMs.allow(null),
    fileName: textOf({ label: "File", max: 4000 }),
    note,
    at: objectOf<NonNullable<ContributionData["at"]>>({
      raDeg,
      decDeg,
      positionAngleDeg: numberOf({ label: "Camera angle", unit: "°", min: -360, max: 360 }).allow(null),
    }).optional(),
    frameId: id.optional(),
    gain: numberOf(CAMERA_FIELDS.gain).optional(),
    offset: numberOf(CAMERA_FIELDS.offset).optional(),
    binning: numberOf(CAMERA_FIELDS.binning).optional(),
    temperatureC: numberOf(CAMERA_FIELDS.temperatureC).optional(),
    airC: numberOf(CAMERA_FIELDS.airC).optional(),
    focusSteps: numberOf(CAMERA_FIELDS.focusSteps).optional(),
    isSimulated: Joi.boolean().valid(true).optional().label("Simulated"),
    measure: objectOf<SubMeasure>({
      fwhmPx: numberOf(MEASURE_FIELDS.fwhmPx),
      eccentricity: numberOf(MEASURE_FIELDS.eccentricity).allow(null),
      stars: numberOf(MEASURE_FIELDS.stars).allow(null),
      background: numberOf(MEASURE_FIELDS.background).allow(null),
      light: numberOf(MEASURE_FIELDS.light).optional(),
      shared: numberOf(MEASURE_FIELDS.shared).optional(),
      from: Joi.string().valid("picture", "header", "table").label("Measured by"),
    }).optional(),
    history: Joi.array()
      .max(MOST_STATES)
      .items(
        objectOf<KeptBefore>({
          untilMs: instantMs,
          kept: numberOf(CONTRIBUTION_FIELDS.kept),
          reason: Joi.string()
            .valid("", ...CULL_REASONS)
            .label("Why not kept"),
        }),
      )
      .optional()
      .label("Kept before"),
  }),
};
