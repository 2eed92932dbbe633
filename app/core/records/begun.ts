import Joi from "joi";
import type { BegunData, BegunEvening } from "~/core/plan";
import type { TurnStep } from "~/core/season";
import type { UtcInterval } from "~/core/time";
import { id, instantMs, night } from "./fields";
import { channel } from "./filter";
import { objectOf, type RecordSchema } from "./kind";

type KeptBlock = BegunEvening["blocks"][number];

const minutes = Joi.number().min(0).max(1440);
const stretch = { startMs: instantMs, endMs: instantMs };
const subSec = Joi.number().greater(0).max(86_400);
const MOST = 24; // of a night

export const begun: RecordSchema<BegunData> = {
  version: 1,
  migrations: [],
  schema: objectOf<BegunData>({
    memberId: id,
    night,
    atMs: instantMs,
    evenings: Joi.array()
      .max(MOST)
      .items(
        objectOf<BegunEvening>({
          placeId: id,
          rigIds: Joi.array().min(1).max(MOST).items(id),
          blocks: Joi.array()
            .max(MOST)
            .items(
              objectOf<KeptBlock>({
                projectId: id,
                channel,
                subSec,
                turn: Joi.array()
                  .max(MOST)
                  .items(objectOf<TurnStep>({ channel, subSec, subs: Joi.number().integer().min(1).max(500) }))
                  .optional(),
                isShort: Joi.boolean().optional(),
                ...stretch,
                slots: objectOf<UtcInterval>(stretch).optional(),
                countsMin: minutes,
                exposureMin: minutes,
                rate: Joi.number().min(0).max(1000).optional(),
                subs: Joi.number().integer().min(0).max(100_000).optional(),
              }),
            ),
        }),
      ),
  }),
};
