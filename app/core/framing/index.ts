export { opticsOf, type Optics, type SensorGeometry } from "./optics";
export { projectTan, deprojectTan, type PlanePoint } from "./tangent";
export {
  frameCorners,
  frameToSky,
  mosaicPanels,
  mosaicExtent,
  seamsOf,
  panelName,
  type MosaicLayout,
  type Panel,
  type Seam,
} from "./mosaic";
export { skyToFrame, starsInSeams, type PlaneStar, type SeamStar } from "./seams";
export { placementCost, placeMosaic, type Outline, type Placement } from "./placement";
export { ellipseFill, bestEllipseAngle, type EllipseFit } from "./fit";
export { rotationAdvice, type RotationAdvice } from "./rotation";
export { chartView, toScreen, fromScreen, type ChartView, type ScreenPoint } from "./chart-view";
