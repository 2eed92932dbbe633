export { degToRad, radToDeg, wrap360, wrap180, turnTo, ARCSEC_PER_RAD, clamp } from "./angle";
export { magToFluxRatio, fluxRatioToMag, skyMagToNanolambert, nanolambertToSkyMag, addSkyMags } from "./light";
