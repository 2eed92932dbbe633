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
export { channelFor, rankCatalog, type RankedTarget, type RankOptions } from "./rank";
export { ribbonNight, type RibbonNight } from "./ribbon";
export { runSheet, type Block, type RunSheet, type SheetEvent, type WorkItem } from "./run-sheet";
export { placeSky } from "./place-sky";
export { hourlySteps, type HourlyStep } from "./hourly";
export { seasonOf, yearOf, yearSkies, type Season, type YearNight, type YearSky } from "./year";
