export { opticsOf, type Optics, type SensorGeometry } from "./optics";
export { projectTan, deprojectTan } from "./tangent";
export {
  frameCorners,
  frameToSky,
  mosaicPanels,
  movedFrame,
  isInPanel,
  mosaicArea,
  mosaicBounds,
  mosaicExtent,
  seamsOf,
  panelName,
  type MosaicLayout,
  type Panel,
} from "./mosaic";
export { skyToFrame, starsInSeams, type SeamStar } from "./seams";
export {
  placementCost,
  placeMosaic,
  type PlacementFound,
  type PlacementLimits,
  type SeamCount,
  type PlacementTask,
} from "./placement";
export { coverOutlines, emptyPanels, type Cover, type PlaneVertex } from "./cover";
export { angleAlong, ellipseFill, bestEllipseAngle } from "./fit";
export { rotationAdvice, toleratedTurnDeg } from "./rotation";
export { chartView, toScreen, fromScreen, type ChartView, type ScreenPoint } from "./chart-view";
export { panelsFor, USUAL_OVERLAP } from "./panels-for";
export { cropCorners, largestCrop, pictureSize, uncovered, type Crop } from "./crop";
export {
  areaWhere,
  commonBox,
  coverageMap,
  depthSteps,
  PLAIN_STEP,
  softenedBy,
  VISIBLE_STEP,
  weightAt,
  type CoverageMap,
  type CoveringFrame,
  type DepthStep,
  type PlaneBox,
} from "./coverage";
export { compositions, type Composition } from "./composition";
export { ellipseOutline } from "./outline";
export { neighbourHold } from "./neighbour";
export { meshCells, meshFromCorners, meshOf, type CornerFault, type FourCorners, type SkyMesh } from "./underlay";
