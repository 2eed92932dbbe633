import Joi from "joi";
import type { LookData } from "~/core/ledger";
import { id, instantMs } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

export const look: RecordSchema<LookData> = {
  version: 1,
  migrations: [],
  schema: objectOf<LookData>({ placeId: id, memberId: id, atMs: instantMs, isClear: Joi.boolean() }),
};
