import { SIZE_FIELD } from "./target-fields";
import Joi from "joi";
import { KINDS, type OwnTarget } from "~/core/catalog";
import { decDeg, maybeId, name, note, numberOf, raDeg } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

export const target: RecordSchema<OwnTarget> = {
  version: 1,
  migrations: [],
  schema: objectOf<OwnTarget>({
    name,
    raDeg,
    decDeg,
    kind: Joi.string()
      .valid(...KINDS)
      .label("Kind"),
    majorArcmin: numberOf(SIZE_FIELD).allow(null),
    light: Joi.string().valid("continuum", "Ha", "OIII", "mixed").label("Light"),
    neighbourId: maybeId,
    note,
  }),
};
