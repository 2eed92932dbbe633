import Joi from "joi";
import type { KeptPicture } from "./pictures";

const node = Joi.array().ordered(Joi.number().min(0).max(360).required(), Joi.number().min(-90).max(90).required());
const schema = Joi.object({
  name: Joi.string().allow("").max(300).required(),
  bytes: Joi.any()
    .custom((value: unknown, helper) =>
      Object.prototype.toString.call(value) === "[object ArrayBuffer]" ? value : helper.error("any.invalid"),
    )
    .required(),
  type: Joi.string().allow("").required(),
  mesh: Joi.object({
    columns: Joi.number().integer().min(1).max(64).required(),
    rows: Joi.number().integer().min(1).max(64).required(),
    nodes: Joi.array().items(node).min(4).required(),
  }).required(),
  opacity: Joi.number().greater(0).max(1).required(),
  corners: Joi.array().items(Joi.string().allow("")).length(4).allow(null).required(),
});

/** A picture as it was kept; null where it does not read. */
export function readPicture(stored: unknown): KeptPicture | null {
  const { error, value } = schema.validate(stored, { convert: false }) as { error?: Error; value: KeptPicture };
  return error ? null : value;
}
