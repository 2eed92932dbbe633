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
export { parsePosition, looksLikePosition, type PositionFault } from "./position";
