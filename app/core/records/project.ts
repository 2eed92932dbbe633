import Joi from "joi";
import { PANEL_SCHOOLS, URGENCIES, type ProjectData } from "~/core/plan";
import { id, maybeId, name, night, note } from "./fields";
import { moonWishes } from "./moon";
import { objectOf, type RecordSchema } from "./kind";

export const project: RecordSchema<ProjectData> = {
  version: 2,
  migrations: [
    // 1 → 2: place and rig are each member's own, in their part of the project.
    ({ placeId, rigId, ...data }) =>
      typeof placeId === "string" && typeof rigId === "string" ? { ...data, begun: { placeId, rigId } } : data,
  ],
  schema: objectOf<ProjectData>({
    name,
    targetId: id,
    startedOn: night,
    school: Joi.string()
      .valid(...PANEL_SCHOOLS)
      .label("School"),
    notes: note,
    frameId: maybeId.optional(),
    urgency: Joi.string()
      .valid(...Object.keys(URGENCIES))
      .optional()
      .label("Urgency"),
    deadline: night.optional().label("Deadline"),
    moon: moonWishes.optional(),
    begun: objectOf<NonNullable<ProjectData["begun"]>>({ placeId: id, rigId: id }).optional(),
  }),
};
