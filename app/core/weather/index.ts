export { clearAfter } from "./clear-chain";
export {
  DEW_SPREAD_C,
  SECURE_GUST_KMH,
  USUAL_GUST_LIMIT_KMH,
  USUAL_WIND_SHARE,
  dewPointC,
  fogOdds,
  hazeWorth,
  skyQuality,
  humidityOf,
  saturationHPa,
  spoilingCover,
  totalCover,
  wetnessOf,
  windPressurePa,
} from "./air";
export { clearOdds, joinHours, type ForecastData, type ForecastHour, type Outcome } from "./forecast";
export {
  brierParts,
  brierScore,
  brierSkill,
  poolOdds,
  reliabilityBins,
  shrunkBrier,
  type ReliabilityBin,
  type Scored,
  type TrackRecord,
} from "./scores";
export { drawnSky, HOURLY_LIKENESS, playNight, type NightOdds } from "./night-odds";
export { NIGHT_PERSISTENCE, learnChances, posteriorChance, type LearntChance, type NightOutcome } from "./clear-chance";
export { nightWeather, oddsSeen, scoredHours, trackRecord, type SourceNight, type WeatherHour } from "./night-weather";
