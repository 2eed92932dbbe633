export { clearChanceOn, USUAL_CLEAR_CHANCE, type Place } from "./place";
export { nightSteps, type NightSteps } from "./steps";
export { channelSky, channelTables, type ChannelSky } from "./channel-sky";
export { CAUSES, walkTarget, usableOf, accountOf, stretches, type Cause, type Walk, type NightAccount } from "./walk";
export { channelFor, rankCatalog, targetJudge, CLOSING_WEEKS, type RankedTarget, type Ranking } from "./rank";
export { comingSeason, seasonTable, seasonWeeks, type ComingSeason, type SeasonLeft } from "./season-table";
export { ribbonNight, type RibbonNight } from "./ribbon";
export { namedPhases, type PhaseName } from "./moon-phase";
export { runSheet, type Block, type RunSheet, type SheetEvent, type WorkItem } from "./run-sheet";
export { COARSE_STEP_MIN, FINE_STEP_MIN, placeNight, placeSky, type PlaceNight } from "./place-night";
export { moonlessWorthMin, targetNight, type TargetNight } from "./target-night";
export { hourlySteps } from "./hourly";
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
