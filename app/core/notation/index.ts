export { parseAngle, parseRightAscensionDeg, parseDeclinationDeg, parseNumber, type AngleFault } from "./parse";
export {
  formatRightAscension,
  formatDeclination,
  formatDegrees,
  formatHoursMinutes,
  formatMinutes,
  formatSpan,
} from "./format";
export { parsePosition, looksLikePosition, type PositionFault, type ReadPosition } from "./position";
