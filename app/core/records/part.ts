import Joi from "joi";
import type { Evenings, PartData } from "~/core/plan";
import { id } from "./fields";
import { channel } from "./filter";
import { perChannel } from "./moon";
import { objectOf, type RecordSchema } from "./kind";

export const part: RecordSchema<PartData> = {
  version: 2,
  migrations: [(data) => data], // 1 → 2: evenings can be told
  schema: objectOf<PartData>({
    projectId: id,
    memberId: id,
    placeId: id,
    rigId: id,
    frameId: id.optional(),
    onlyAt: perChannel<string>(id).optional(),
    evenings: objectOf<Evenings>({
      busyWeekdays: Joi.array().items(Joi.number().integer().min(0).max(6)).max(7).unique(),
      placeIds: Joi.array().items(id).max(50).unique(),
    })
      .optional()
      .label("Free evenings"),
    channels: Joi.array().max(20).items(channel).optional().label("Promised channels"),
  }),
};
