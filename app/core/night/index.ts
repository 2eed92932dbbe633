export type { Place } from "./place";
export { nightSteps, type NightSteps } from "./steps";
export { channelSky, channelTables, type ChannelSky, type ChannelTables } from "./channel-sky";
export {
  CAUSES,
  walkTarget,
  usableOf,
  accountOf,
  stretches,
  type Cause,
  type Stretch,
  type TargetNight,
  type NightAccount,
} from "./target-night";
export {
  channelFor,
  rankCatalog,
  targetJudge,
  CLOSING_WEEKS,
  LOWEST_DEG,
  type RankedTarget,
  type RankOptions,
  type Ranking,
} from "./rank";
export {
  comingSeason,
  seasonTable,
  seasonWeeks,
  type ComingSeason,
  type SeasonLeft,
  type SeasonTable,
} from "./season-table";
export { ribbonNight, type RibbonNight } from "./ribbon";
export { runSheet, type Block, type RunSheet, type SheetEvent, type WorkItem } from "./run-sheet";
export { placeSky } from "./place-sky";
export { hourlySteps, type HourlyStep } from "./hourly";
export {
  monthsOf,
  seasonOf,
  yearOf,
  yearSkies,
  type MonthInNumbers,
  type Season,
  type YearNight,
  type YearSky,
} from "./year";
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
  shrunkBrier,
  type BrierParts,
  type Pooled,
  type Scored,
  type TrackRecord,
} from "./scores";
export { HOURLY_LIKENESS, playNight, type NightOdds, type OddsHour } from "./night-odds";
export { NIGHT_PERSISTENCE, learnChances, posteriorChance, type LearntChance, type NightOutcome } from "./clear-chance";
export { nightWeather, scoredHours, trackRecord, type SourceNight, type WeatherHour } from "./night-weather";
export {
  finderPath,
  nakedEyeLimitMag,
  SKY_WAYS,
  type FinderPath,
  type GuideStar,
  type Hop,
  type SkyWay,
} from "./finder";
export { chartFrame, chartPoint, chartSkyline, turned, type ChartPoint, type ChartTurn } from "./finder-chart";
