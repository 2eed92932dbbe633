import Joi from "joi";
import type { ForecastData, ForecastHour } from "~/core/weather";
import { id, instantMs, name, night, share } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

const maybe = Joi.number().allow(null);
const maybeShare = share.allow(null);

export const forecast: RecordSchema<ForecastData> = {
  version: 1,
  migrations: [],
  schema: objectOf<ForecastData>({
    placeId: id,
    sourceId: id,
    sourceName: name,
    night,
    hours: Joi.array()
      .max(60)
      .items(
        objectOf<ForecastHour>({
          atMs: instantMs,
          issuedMs: instantMs,
          lowCloud: maybeShare,
          middleCloud: maybeShare,
          highCloud: maybeShare,
          humidity: maybeShare,
          airC: maybe,
          dewC: maybe,
          windMs: maybe,
          gustMs: maybe,
          rainChance: maybeShare,
          seeingArcsec: maybe,
          hazeMag: maybe,
        }),
      ),
    isOneMore: Joi.boolean().optional(),
  }),
};
