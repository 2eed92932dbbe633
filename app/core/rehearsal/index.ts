export {
  panelKey,
  skyKey,
  subjectOf,
  WAYS,
  type Decision,
  type NightBrought,
  type Played,
  type RehearsalNight,
  type RehearsalRig,
  type Trouble,
  type Way,
  type WayKey,
} from "./question";
export { playNight, weatherOf } from "./play";
export { standInKit } from "./rig-at-night";
export { hindsight, overSeeds, type Judged, type WayRecord } from "./hindsight";
export { PREPARED, PREPARED_PLACE, PREPARED_TARGET, preparedNight, type Prepared } from "./prepared";
export { calibrationFiles, fileOfSub } from "./sub-frame";
