export { parseAngle, parseRightAscensionDeg, parseDeclinationDeg, parseNumber } from "./parse";
export {
  formatRightAscension,
  plainPosition,
  formatDeclination,
  formatDegrees,
  formatHoursMinutes,
  formatMinutes,
  formatSpan,
} from "./format";
export { parseFocalRatio, parseQuantity } from "./quantity";
export { parseOffset, type ReadOffset } from "./offset";
export { parsePosition, looksLikePosition, type PositionFault } from "./position";
