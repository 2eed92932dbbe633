export { CHANNELS, CHANNEL_FACTS, isNarrow, type Channel, type ChannelFacts } from "./channel";
export { DEFAULT_OVERHEADS, type Filter, type Overheads, type Rig } from "./rig";
export { photonZeroPoint, skyRate, lineRate, pointSourceRate } from "./rates";
export { ceilingE, darkRateAt } from "./camera";
export {
  shortestSubSec,
  readNoiseShare,
  centralPixelShare,
  saturationSec,
  faintestSaturatedMag,
  niceSubSec,
  NICE_SUBS_SEC,
} from "./sub-length";
export { subAdvice, subEffects, type SubAdvice, type SubEffects, type SubLimit, type SubQuestion } from "./advice";
export { stackSnr, subsForSnr, ccdSnr } from "./snr";
export { cycleSec, efficiencyOf, subsInTime, clockHoursFor } from "./overheads";
export { equivalentHours } from "./equivalent";
export { suggestedHours } from "./suggest";
export { firstChannels, firstHours, leastHours, type LeastHours } from "./first-hours";
export { blurOf, detailVerdict, type Blur, type DetailVerdict } from "./detail";
export { focusShiftMm, criticalFocusZoneUm } from "./focus";
export { compareRig, lightGrasp, type RigComparison } from "./compare-rigs";
export { limitingSurfaceMag, stackNoise } from "./depth";
