import { FILTER_FIELDS, THICKNESS_FIELD } from "./filter-fields";
import Joi from "joi";
import { CHANNELS, type Filter } from "~/core/exposure";
import { name, numberOf, numbersOf } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

/** What a filter records. */
export const channel = Joi.string()
  .valid(...CHANNELS)
  .label("Channel");

export const filter: RecordSchema<Filter> = {
  version: 1,
  migrations: [],
  schema: objectOf<Filter>({
    name,
    channel,
    ...numbersOf(FILTER_FIELDS),
    thicknessMm: numberOf(THICKNESS_FIELD.thicknessMm).optional(),
  }),
};
