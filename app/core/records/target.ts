import Joi from "joi";
import { KINDS, type OwnTarget } from "~/core/catalog";
import { decDeg, maybeId, name, note, numberOf, raDeg, type NumberField } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

/** Size of a target of one's own along its longest side. */
export const SIZE_FIELD: NumberField = { label: "Size", unit: "′", min: 0, max: 7200, isAboveMin: true };

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
