import Joi from "joi";
import type { PartData } from "~/core/plan";
import { id } from "./fields";
import { channel } from "./filter";
import { perChannel } from "./moon";
import { objectOf, type RecordSchema } from "./kind";

export const part: RecordSchema<PartData> = {
  version: 1,
  migrations: [],
  schema: objectOf<PartData>({
    projectId: id,
    memberId: id,
    placeId: id,
    rigId: id,
    frameId: id.optional(),
    onlyAt: perChannel<string>(id).optional(),
    channels: Joi.array().max(20).items(channel).optional().label("Promised channels"),
  }),
};
