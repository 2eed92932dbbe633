export { parseClock } from "./clock-text";
export { parseAngle, parseRightAscensionDeg, parseDeclinationDeg, parseNumber } from "./parse";
export {
  formatRightAscension,
  plainPosition,
  formatDeclination,
  spokenDeclination,
  spokenRightAscension,
  formatDegrees,
  formatHoursMinutes,
  formatMinutes,
  formatSpan,
} from "./format";
export { parseFocalRatio, convertQuantity, parseQuantity } from "./quantity";
export { parseOffset, type ReadOffset } from "./offset";
export { parsePosition, looksLikePosition, type PositionFault } from "./position";
