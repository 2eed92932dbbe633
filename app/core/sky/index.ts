export type { Equatorial, Horizontal, Vec3 } from "./frames";
export { directionOf, unitVector } from "./frames";
export { separationDeg, positionAngleDeg, offsetBy } from "./separation";
export { moonPhase, bodyOfDate, constellationOf } from "./ephemeris";
export { nightOf, nightWindow, type NightPlace } from "./sun-night";
export { nightSky, sunAltitudeDeg, moonAt, type NightSky } from "./night-sky";
export { apparentVector, horizontalAt, localSiderealRad, zenithPositionAngleDeg } from "./horizontal";
export { nightEvents, sunPassesMs, type NightEvents, type SunLine } from "./events";
export { altitudeCrossings, nextTransitMs, transits } from "./passages";
export { fieldRotationDegPerHour, usualRotationDegPerHour } from "./field-rotation";
export { airmassKastenYoung, airmassPickering } from "./airmass";
export { refractionOfApparentArcmin, refractionOfTrueArcmin } from "./refraction";
export { extinctionMagPerAirmass } from "./extinction";
export { moonlightNanolambert, moonIlluminance, scatteringTerms, thinAirmass } from "./moonlight";
export { moonColourFactor } from "./moon-colour";
export { TWILIGHT_BEGINS_DEG, twilightFlux } from "./twilight";
export {
  DOME_FADE_DEG,
  darkSkyNanolambert,
  darknessClass,
  domeFootNanolambert,
  domeNanolambert,
  magOfDarknessClass,
  skyTowardsMag,
  type Lamp,
  type LightDome,
} from "./darkness";
export { moonAvoidanceDeg, type MoonRule } from "./moon-rule";
export {
  hiddenBelowDeg,
  shiftSkyline,
  skylineAltitudeDeg,
  skylineTable,
  trueAzimuthDeg,
  type Landmark,
  type Skyline,
  type SkylinePoint,
} from "./skyline";
export { galacticToIcrs, icrsToGalactic } from "./galactic";
