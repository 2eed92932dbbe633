export { clearChanceOn, isAway, isChanceAssumed, USUAL_CLEAR_CHANCE, type Place } from "./place";
export { batteryLife, capacityShare, type BatteryLife } from "./power";
export { nightSteps, type NightSteps } from "./steps";
export { channelSky } from "./channel-sky";
export {
  moonLimitOf,
  moonRuleOf,
  MOON_SCHOOLS,
  TWILIGHT_SCHOOLS,
  USUAL_MOON,
  type MoonSchool,
  type MoonWishes,
  type TwilightSchool,
} from "./moon-school";
export {
  CAUSES,
  walkTarget,
  sumsOf,
  accountOf,
  stretches,
  type Cause,
  type OwnLight,
  type Walk,
  type NightAccount,
} from "./walk";
export {
  rankCatalog,
  targetJudge,
  takesYears,
  exactLine,
  seasonSuffices,
  type RankedTarget,
  type Ranking,
} from "./rank";
export { CLOSING_WEEKS } from "./rank-score";
export { comingSeason, seasonTable, seasonWeeks, weekNight, type ComingSeason, type SeasonLeft } from "./season-table";
export { ribbonNight, type RibbonNight } from "./ribbon";
export { namedPhases, type PhaseName } from "./moon-phase";
export { foldRounds, type Rounds } from "./sheet-rounds";
export { runSheet } from "./run-sheet";
export type { Block, PackUpBy, RunSheet, SheetEvent, WorkItem } from "./sheet-model";
export { NIGHT_STEP_MIN, placeNight, placeSky, tablesOf, withMoon, type PlaceNight } from "./place-night";
export { panelSky, type PanelSky } from "./panel-sky";
export { targetNight, type TargetNight } from "./target-night";
export { bestRate } from "./best-rate";
export { hourlySteps } from "./hourly";
export { firstDarkNight, isEverDark } from "./first-dark";
export { fullMoonShare } from "./full-moon";
export { nightWay, type AltitudePassage, type NightWay, type Obstruction } from "./way";
export {
  clearHoursByMonth,
  monthsOf,
  seasonOf,
  yearOf,
  yearNights,
  type MonthInNumbers,
  type Season,
  type YearNight,
} from "./year";
