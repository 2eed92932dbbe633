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
