import Joi from "joi";
import type { LockData } from "~/core/season";
import { id, night } from "./fields";
import { channel } from "./filter";
import { objectOf, type RecordSchema } from "./kind";

export const lock: RecordSchema<LockData> = {
  version: 1,
  migrations: [],
  schema: objectOf<LockData>({
    memberId: id,
    night,
    does: Joi.string().valid("fix", "forbid"),
    projectId: id.optional(),
    channel: channel.optional(),
    placeId: id.optional(),
  }),
};
