import Joi from "joi";
import type { ProjectData } from "~/core/plan";
import { id, maybeId, name, night, note } from "./fields";
import { moonWishes } from "./moon";
import { objectOf, type RecordSchema } from "./kind";

export const project: RecordSchema<ProjectData> = {
  version: 1,
  migrations: [],
  schema: objectOf<ProjectData>({
    name,
    targetId: id,
    placeId: id,
    rigId: id,
    startedOn: night,
    school: Joi.string().valid("allPanelsEveryNight", "panelAfterPanel").label("School"),
    notes: note,
    frameId: maybeId.optional(),
    moon: moonWishes.optional(),
  }),
};
