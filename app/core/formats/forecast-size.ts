/** A forecast of 400 hours has about 50 kB. */
export const MAX_FORECAST_BYTES = 2_000_000;
