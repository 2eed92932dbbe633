export type { SeasonTask } from "./model";
export { playSeasons } from "./seasons";
export { seasonTables } from "./tables";
export type { HourOdds, HoursCount, SeasonProject, SeasonRequest } from "./request";
export { eveningsOf, plannedSeason, planSeason, type Planning } from "./plan";
export type { FinishDates, SeasonPlan, SeasonWork } from "./season-plan";
export { isWork } from "./evening";
export type { Evening, PlannedBlock } from "./blocks";
export { idleFit, idleNights } from "./idle";
export {
  channelsText,
  cycleText,
  readCycle,
  weightOf,
  type CycleStep,
  type ShootingRules,
  type TurnStep,
} from "./rules";
export type { RunStanding } from "./runs";
export { hasLeft } from "./wants";
export { isReserve, isWanted, plannedHours, shareOf, type ProjectShare, type ShareNight } from "./share";
export { whyEvening, type WhyEvening } from "./why";
export { changedBy, type WhatIf } from "./what-if";
export { movedNights, type MovedNight } from "./moved";
export { chanceOfRun, phasesOf, type Phase } from "./phases";
export { savesOf, type Save } from "./saves";
export { eveningsElsewhere } from "./elsewhere";
export {
  drivesOf,
  nightFrom,
  runStandingOf,
  USUAL_PERSON_RULES,
  type NightStock,
  type PersonRules,
  type SeasonPlace,
  type SeasonQuestion,
} from "./question";
export type { Lock, LockConflict, LockData } from "./locks";
export { solvedSeason, solveSeason, type SeasonAnswer } from "./solve";
