import { degToRad } from "~/core/units";

const cot = (deg: number) => 1 / Math.tan(degToRad(deg));

/** Refraction in arcminutes at an apparent altitude, 1010 hPa and 10 °C: cot(h + 7.31/(h + 4.4)). Bennett 1982, J. Inst. Navig. 35, 255. */
export const refractionOfApparentArcmin = (apparentAltitudeDeg: number): number =>
  cot(apparentAltitudeDeg + 7.31 / (apparentAltitudeDeg + 4.4));

/** Refraction in arcminutes at a true (airless) altitude, 1010 hPa and 10 °C: 1.02 cot(h + 10.3/(h + 5.11)). Sæmundsson 1986, Sky & Telescope 72, 70. */
export const refractionOfTrueArcmin = (altitudeDeg: number): number =>
  1.02 * cot(altitudeDeg + 10.3 / (altitudeDeg + 5.11));
