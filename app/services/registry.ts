import type { ForecastSource } from "./source";
import { standIns } from "./stand-in";

/** Every source that is asked, in the order shown. */
export const FORECAST_SOURCES: readonly ForecastSource[] = standIns;
