export {
  DEW_SPREAD_C,
  SECURE_GUST_KMH,
  USUAL_GUST_LIMIT_KMH,
  USUAL_WIND_SHARE,
  dewPointC,
  hazeWorth,
  humidityOf,
  saturationHPa,
  spoilingCover,
  totalCover,
  wetnessOf,
  windPressurePa,
  type CloudLayers,
  type Wetness,
} from "./air";
export { clearOdds, joinHours, type ForecastData, type ForecastHour, type Outcome } from "./forecast";
export {
  brierParts,
  brierScore,
  brierSkill,
  poolOdds,
  reliabilityBins,
  shrunkBrier,
  type BrierParts,
  type Pooled,
  type ReliabilityBin,
  type Scored,
  type TrackRecord,
} from "./scores";
export { HOURLY_LIKENESS, playNight, type NightOdds, type OddsHour } from "./night-odds";
export { NIGHT_PERSISTENCE, learnChances, posteriorChance, type LearntChance, type NightOutcome } from "./clear-chance";
export { nightWeather, scoredHours, trackRecord, type SourceNight, type WeatherHour } from "./night-weather";
