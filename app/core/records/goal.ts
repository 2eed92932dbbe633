import { GOAL_FIELDS } from "./goal-fields";
import { SETTING_NAME } from "./rig-fields";
import Joi from "joi";
import type { GoalData, PanelGoal } from "~/core/plan";
import { id, maybeId, numberOf, textOf } from "./fields";
import { channel } from "./filter";
import { moonSchool } from "./moon";
import { objectOf, type RecordSchema } from "./kind";

export const goal: RecordSchema<GoalData> = {
  version: 2,
  migrations: [
    // 1 → 2: magnitude 10.5 was protected although nobody had asked for it, and cut subs to seconds under bright skies.
    (data) => (data["protectedMag"] === 10.5 ? { ...data, protectedMag: null } : data),
  ],
  schema: objectOf<GoalData>({
    projectId: id,
    protectedMag: numberOf(GOAL_FIELDS.protectedMag).allow(null),
    channels: Joi.array()
      .max(40)
      .items(
        objectOf<PanelGoal>({
          channel,
          filterId: maybeId,
          hoursPerPanel: numberOf(GOAL_FIELDS.hoursPerPanel),
          byPanel: Joi.object()
            .pattern(/^P\d{1,3}$/, numberOf(GOAL_FIELDS.hoursPerPanel))
            .optional(),
          subSec: numberOf(GOAL_FIELDS.subSec),
          isShort: Joi.boolean().optional(),
          setting: textOf(SETTING_NAME).optional(),
          moon: moonSchool.optional(),
        }),
      )
      .label("Channels"),
  }),
};
