import Joi from "joi";
import type { HandOverData } from "~/core/crew";
import { id, textOf } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

export const handOver: RecordSchema<HandOverData> = {
  version: 1,
  migrations: [],
  schema: objectOf<HandOverData>({
    projectId: id,
    form: Joi.string().valid("stacks", "calibratedSubs", "rawSubs").label("Form"),
    bits: Joi.number().valid(16, 32).label("Bits a pixel"),
    done: Joi.array()
      .max(500)
      .items(textOf({ label: "Handed over", max: 200 }))
      .unique(),
  }),
};
