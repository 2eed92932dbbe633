export { opticsOf, type Optics, type SensorGeometry } from "./optics";
export { projectTan, deprojectTan, type PlanePoint } from "./tangent";
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
  type Seam,
} from "./mosaic";
export { seamLines, skyToFrame, starsInSeams, type PlaneStar, type SeamLine, type SeamStar } from "./seams";
export {
  placementCost,
  placeMosaic,
  type Outline,
  type Placement,
  type PlacementFound,
  type PlacementLimits,
  type SeamCount,
  type PlacementTask,
} from "./placement";
export { coverOutlines, emptyPanels, type Cover, type PlaneVertex } from "./cover";
export { ellipseFill, bestEllipseAngle, type EllipseFit } from "./fit";
export { rotationAdvice, toleratedTurnDeg, type RotationAdvice } from "./rotation";
export { chartView, toScreen, fromScreen, type ChartView, type ScreenPoint } from "./chart-view";
export { panelsFor, USUAL_OVERLAP } from "./panels-for";
export { neighbourHold, type NeighbourHold } from "./neighbour";
export { meshCells, meshFromCorners, meshOf, type CornerFault, type FourCorners, type SkyMesh } from "./underlay";
