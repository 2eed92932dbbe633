/** What is drawn of the sky on a canvas, of a page or in a worker. */
export { drawBackdrop, type Backdrop, type ChartAsked } from "./backdrop-layer";
export { drawCompass, drawOutlines } from "./marks-layer";
export { drawMosaic, handleOf } from "./mosaic-layer";
export { drawObjects, drawPatches } from "./object-layers";
export { viewRadiusDeg, INKS, type Ink } from "./pen";
export { drawSmallPicture, smallPictureDeg } from "./small-picture";
export { drawBorders, drawFigures, drawGraticule, drawMilkyWay, drawStars, faintestAt, starName } from "./sky-layers";
export { drawUnderlay, type LaidPicture, type Underlay } from "./underlay-layer";
