import Joi from "joi";
import type { GoalData, PanelGoal } from "~/core/plan";
import { id, numberOf, type NumberField } from "./fields";
import { channel } from "./filter";
import { moonSchool } from "./moon";
import { objectOf, type RecordSchema } from "./kind";

/** Numbers of a budget. */
export const GOAL_FIELDS = {
  hoursPerPanel: { label: "Hours a panel", unit: "h", min: 0, max: 500 },
  subSec: { label: "Sub", unit: "s", min: 0, max: 7200, isAboveMin: true },
  protectedMag: { label: "Stars that must not clip", unit: "fainter than mag", min: 0, max: 20 },
} as const satisfies Readonly<Record<string, NumberField>>;

export const goal: RecordSchema<GoalData> = {
  version: 1,
  migrations: [],
  schema: objectOf<GoalData>({
    projectId: id,
    protectedMag: numberOf(GOAL_FIELDS.protectedMag),
    channels: Joi.array()
      .max(40)
      .items(
        objectOf<PanelGoal>({
          channel,
          filterId: id,
          hoursPerPanel: numberOf(GOAL_FIELDS.hoursPerPanel),
          subSec: numberOf(GOAL_FIELDS.subSec),
          moon: moonSchool.optional(),
        }),
      )
      .label("Channels"),
  }),
};
