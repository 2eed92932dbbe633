export {
  CULL_REASONS,
  type CalibrationData,
  type ContributionData,
  type CullReason,
  type KeptBefore,
  type SubMeasure,
} from "./contribution";
export {
  dataSumOf,
  fileIdentity,
  textSumOf,
  type FileIdentity,
  type ExposureFacts,
  type FrameType,
} from "./exposure-facts";
export { channelOfFilter } from "./filter-name";
export { exposureBooker } from "./booking";
export type {
  Booking,
  BookingAnswer,
  BookingQuestion,
  BookingContext,
  BookingFault,
  Mismatch,
} from "./booking-context";
export { learntTime } from "./learnt-time";
export {
  collectedByNight,
  cellKey,
  channelSums,
  isOfShortSet,
  countedByCell,
  loomOf,
  nightTotals,
  type ChannelSum,
  type LoomCell,
  type NightTotal,
} from "./progress";
export {
  calibrationNeeds,
  lastTrainChange,
  USUAL_CALIBRATION,
  type CalibrationNeed,
  type CameraSet,
  type CalibrationSchool,
  type LightPlan,
} from "./calibration-needs";
export { shelfSets, type ShelfSet } from "./calibration-shelf";
export { doneAdvice, type CellAdvice, type DoneAdvice, type Unlevel } from "./done-advice";
export { acquisitionCard, type AcquisitionCard } from "./acquisition";
export { measureStars, subMeasureOf } from "./star-measure";
export type { PixelTile } from "./star-peaks";
export {
  cullHints,
  cullPrice,
  keptHistory,
  likeKey,
  measureSummary,
  MOST_STATES,
  subsBetween,
  withKept,
  type CullHint,
  type CullPrice,
  type CullSub,
} from "./cull";
export { memberWeights, type MemberWeight } from "./equivalence";
export {
  countAgainst,
  countedEntries,
  coveredShare,
  filledPanels,
  type CountedEntry,
  type CountRules,
  type FilledPanel,
  type ShotFrame,
} from "./counted";
export { kitFromExposure, type KitFromExposure } from "./kit-from-exposure";
export { clockSessions } from "./clock-sessions";
export { clockAheadHours, LIT_DEG, type IntakeData } from "./intake-record";
export { readLogLine, type LogLine, type LogLineContext, type LogLineFault } from "./log-line";
export {
  guidingVerdict,
  measureOf,
  LOST_CAUSES,
  type LostCause,
  NIGHT_MEASURES,
  TRAIN_PARTS,
  polarDriftArcsec,
  polarTotal,
  troublesAbout,
  type NightFacts,
  type NightMeasure,
} from "./night-facts";
export { nightOutcomes, skyOutcomes, type LookData } from "./outcomes";
export { toldByFiles, type ToldByFiles } from "./night-from-subs";
export { impossibles, strangerIn, type Impossible } from "./impossible";
export { focusMoves, type FocusHint, type FocusMove } from "./focus-moves";
