export {
  allSkyPath,
  readSurvey,
  surveyFile,
  surveyText,
  tilePath,
  type Survey,
  type SurveyFault,
  type SurveyFile,
} from "./survey";
export { BASE_CELL_DEG, cellPoint, directionOfCell, inFrameOf, tileAt, tilesAround, tileSquare } from "./cells";
export { cellsCovering, coverageOrder, type SkyCells } from "./covering";
export { ALL_SKY_ORDER, allSkyTiles, drawSurvey, eachPixel, orderFor, type SurveyLook, type TilePixels } from "./draw";
export { SIMULATED, simulatedTile, type SimulatedSky } from "./simulated";
