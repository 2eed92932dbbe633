export type { DrawnOutline, FrameData, GoalData, ProjectData, PanelGoal } from "./project";
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
export {
  allocate,
  plannedHours,
  type NightOffer,
  type PlanRules,
  type Need,
  type PlannedNight,
  type PlanResult,
} from "./allocate";
export { simulateFinish, type FinishOdds } from "./odds";
export { nightOffer, nightOffers } from "./offers";
export {
  chooseTonight,
  eveningShare,
  projectTonight,
  type EveningShare,
  type TonightChoice,
  type TonightProject,
  type UsableProject,
} from "./tonight";
export { nightSheet } from "./sheet";
export { cautionsOf, type Caution } from "./cautions";
export { newProject } from "./new-project";
export { inNightOrder } from "./channel-order";
export {
  feltKmh,
  hoursOf,
  rainDeadline,
  weighNight,
  type ExpectedProject,
  type GoingRules,
  type WeighedHour,
  type WeighedNight,
} from "./weigh";
export { judgeNight, reasonsOf, type AwayNight, type Change, type Reason, type Verdict } from "./verdict";
export { drivePays, type DriveAnswer } from "./drive";
