import Joi from "joi";
import type { IntakeData } from "~/core/ledger";
import { id, instantMs, numberOf, textOf } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

const count = numberOf({ label: "Files", min: 0, max: 1_000_000, isWhole: true });
const words = textOf({ label: "Text", max: 1000 });

export const intake: RecordSchema<IntakeData> = {
  version: 1,
  migrations: [],
  schema: objectOf<IntakeData>({
    memberId: id,
    atMs: instantMs,
    total: count,
    added: count,
    known: count,
    clockHours: numberOf({ label: "Clock ahead", unit: "h", min: -14, max: 14, isWhole: true }).optional(),
    lines: Joi.array()
      .max(1000)
      .items(objectOf<IntakeData["lines"][number]>({ count, words, notes: Joi.array().max(100).items(words) })),
    left: Joi.array()
      .max(1000)
      .items(objectOf<IntakeData["left"][number]>({ name: words, why: words })),
  }),
};
