export {
  PANEL_SCHOOLS,
  SHARING_WAYS,
  type SharingRules,
  type SharingWay,
  URGENCIES,
  type DrawnOutline,
  type FrameData,
  type Need,
  type OwnByChannel,
  type ProjectData,
  type Urgency,
  type WishData,
} from "./project";
export type { GoalData, PanelGoal } from "./goal";
export { partId, promises, type Evenings, type PartData } from "./part";
export {
  frameChange,
  isFollowed,
  panelCountedFor,
  type FrameChange,
  type FrameStock,
  type PanelMove,
} from "./frame-history";
export { filterOfGoal, layoutOf, moonOfProject, panelLabel, panelsOf, remainingWork } from "./project";
export { freedHours, type FreedHours, type WishOffer } from "./freed";
export { nightOffer } from "./offers";
export { feltKmh } from "./weigh";
export { chooseTonight, projectTonight, type TonightBlock, type TonightChoice, type TonightProject } from "./tonight";
export { nightSheet, type SheetProject } from "./sheet";
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
export { waitingOdds } from "./waiting";
export { rainDeadline } from "./dry-runs";
export { cautionsOf, type Caution } from "./cautions";
export { hoursFor, hoursOfAll, panelHoursText, readPanelHours, type PanelHoursFault } from "./panel-hours";
export { firstLayout, newProject } from "./new-project";
export { inNightOrder } from "./channel-order";
export {
  hoursOf,
  outWindow,
  weighNight,
  type ExpectedProject,
  type GoingRules,
  type WeighedHour,
  type WeighedNight,
} from "./weigh";
export { judgeNight, reasonsOf, type AwayNight, type Change, type Reason, type Verdict } from "./verdict";
export { restOfNight, type RestOfNight, type RestStep } from "./rest";
export { drivePays, type DriveAnswer } from "./drive";
