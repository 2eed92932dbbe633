export {
  PANEL_SCHOOLS,
  SHARING_WAYS,
  type SharingRules,
  type SharingWay,
  URGENCIES,
  type DrawnOutline,
  type FrameData,
  type GoalData,
  type Need,
  type OwnByChannel,
  type ProjectData,
  type PanelGoal,
  type Urgency,
  type WishData,
} from "./project";
export {
  eveningsElsewhere,
  eveningsOf,
  isReserve,
  isWanted,
  hasLeft,
  plannedHours,
  plannedSeason,
  movedNights,
  chanceOfRun,
  phasesOf,
  savesOf,
  shareOf,
  changedBy,
  whyEvening,
  idleFit,
  isWork,
  idleNights,
  drivesOf,
  runStandingOf,
  channelsText,
  cycleText,
  readCycle,
  weightOf,
  type CycleStep,
  type ShootingRules,
  type TurnStep,
  type RunStanding,
  USUAL_PERSON_RULES,
  type Evening,
  type FinishDates,
  type HourOdds,
  type HoursCount,
  type Planning,
  type Lock,
  type LockConflict,
  type LockData,
  type MovedNight,
  type NightStock,
  type PersonRules,
  type ProjectShare,
  type Save,
  type ShareNight,
  type Phase,
  type PlannedBlock,
  type SeasonPlace,
  type SeasonPlan,
  type SeasonProject,
  type SeasonQuestion,
  type SeasonWork,
  type WhatIf,
  type WhyEvening,
} from "./season";
export { partId, promises, type PartData } from "./part";
export {
  frameChange,
  isFollowed,
  panelCountedFor,
  panelMoves,
  type FrameChange,
  type FrameStock,
  type PanelMove,
} from "./frame-history";
export { filterOfGoal, layoutOf, moonOfProject, panelLabel, panelsOf, remainingWork } from "./project";
export { freedHours, type DarksDue, type FreedHours, type WishOffer } from "./freed";
export { nightOffer, type NightOffer } from "./offers";
export { chooseTonight, projectTonight, type TonightBlock, type TonightChoice, type TonightProject } from "./tonight";
export { nightSheet, laidOut, type SheetProject } from "./sheet";
export {
  beginningOf,
  lessTaken,
  replannedFrom,
  takenUntil,
  type BegunData,
  type NightAct,
  type BegunEvening,
} from "./begun";
export { layEvenings, nextEvenings, planEvenings } from "./lay";
export { cautionsOf, type Caution } from "./cautions";
export { hoursFor, hoursOfAll, panelHoursText, readPanelHours, type PanelHoursFault } from "./panel-hours";
export { newProject } from "./new-project";
export { inNightOrder } from "./channel-order";
export {
  feltKmh,
  hoursOf,
  outWindow,
  rainDeadline,
  weighNight,
  type ExpectedProject,
  type GoingRules,
  type WeighedHour,
  type WeighedNight,
} from "./weigh";
export { judgeNight, reasonsOf, type AwayNight, type Change, type Reason, type Verdict } from "./verdict";
export { restOfNight, type RestOfNight, type RestStep } from "./rest";
export { drivePays, type DriveAnswer } from "./drive";
