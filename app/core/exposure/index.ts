export { CHANNELS, CHANNEL_FACTS, isNarrow, type Channel } from "./channel";
export {
  CARE_OCCASIONS,
  CARE_PARTS,
  DEFAULT_OVERHEADS,
  USUAL_REFOCUS_C,
  type CameraSetting,
  type CareOccasion,
  type CarePart,
  type Filter,
  type Overheads,
  type OwnCheck,
  type Power,
  type Rig,
  type RigCare,
  type SubLimits,
} from "./rig";
export { photonZeroPoint, skyRate, lineRate, pointSourceRate } from "./rates";
export { ceilingE, darkRateAt } from "./camera";
export { pictureLights } from "./pixel";
export { shortestSubSec, readNoiseShare, centralPixelShare, niceSubSec } from "./sub-length";
export { bestSub, clockYield, FLAT, type ClockRates } from "./clock";
export {
  USUAL_ABOVE_AIR_C,
  shortSetSec,
  subAdvice,
  subEffects,
  type SubLimit,
  type SubAdvice,
  type SubEffects,
  type SubQuestion,
} from "./advice";
export { stackSnr, subsForSnr, ccdSnr } from "./snr";
export { BORNE_TRAIL_PX, rotationSubSec, roundShare, unguidedSubSec } from "./mount";
export {
  stillTypical,
  TYPICAL_VALUES,
  OPTICS_KINDS,
  opticsName,
  typicalRig,
  type KitPresets,
  type TypicalCamera,
  type TypicalFilters,
  type TypicalKit,
  type TypicalOptics,
} from "./typical";
export { matchedDithers } from "./dithers";
export { cycleSec, efficiencyOf, fileBytes, nightDepthHours, subsInTime, clockHoursFor } from "./overheads";
export { equivalentHours } from "./equivalent";
export { channelOffers, type ChannelOffer } from "./channel-offers";
export { channelAdvice, linesOf, type ChannelAdvice } from "./channel-advice";
export { blurOf, detailVerdict, type DetailVerdict } from "./detail";
export { focusShiftMm, criticalFocusZoneUm } from "./focus";
export { compareRig, depthRate, lightGrasp, type KitUnderSky } from "./compare-rigs";
export { limitingSurfaceMag } from "./depth";
export { isOfStars, lightSource, objectLight, USUAL_LIGHT, type LightSource, type ObjectLight } from "./object-light";
export {
  besideSky,
  elementArcsec,
  habitHours,
  lightModel,
  objectRate,
  pixelModel,
  underSky,
  unitSnrSec,
  type BesideSky,
  type LightModel,
  type PixelModel,
} from "./light-rates";
export { pictureJudge, pictureOf, sameDepthHours, type Picture, type PictureKit } from "./picture";
export { hoursForGoal, measuresOf, sharedHours, sharesFor, type GoalAsked, type HoursShare } from "./goal-measures";
