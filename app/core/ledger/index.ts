export { CULL_REASONS, type CalibrationData, type ContributionData, type CullReason } from "./contribution";
export { fileIdentity, type ExposureFacts, type FrameType } from "./exposure-facts";
export { channelOfFilter } from "./filter-name";
export {
  bookExposure,
  type Booking,
  type BookingAnswer,
  type BookingQuestion,
  type BookingContext,
  type BookingFault,
  type Mismatch,
} from "./booking";
export { learntTime, type LearntTime } from "./learnt-time";
export {
  collectedByNight,
  cellKey,
  isOfShortSet,
  countAgainst,
  countedByCell,
  loomOf,
  nightTotals,
  type CountOf,
  type LoomCell,
  type NightTotal,
} from "./progress";
export {
  calibrationNeeds,
  lastTrainChange,
  shelfSets,
  USUAL_CALIBRATION,
  type CalibrationNeed,
  type CalibrationSchool,
  type ShelfSet,
} from "./calibration-needs";
export { acquisitionCard, type AcquisitionCard } from "./acquisition";
export { coveredShare, memberWeights, type MemberWeight, type ShotFrame } from "./equivalence";
export { clockAheadHours, type IntakeData } from "./intake-record";
export { logLineText, readLogLine, type LogLine, type LogLineFault } from "./log-line";
export {
  guidingTotal,
  guidingVerdict,
  measureOf,
  NIGHT_MEASURES,
  TRAIN_PARTS,
  polarDriftArcsec,
  polarTotal,
  troublesAbout,
  type NightFacts,
  type NightMeasure,
} from "./night-facts";
export { nightOutcomes, skyOutcomes, type LookData } from "./outcomes";
