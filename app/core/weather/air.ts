/** Cover of three layers of cloud, each [0, 1]. */
export interface CloudLayers {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
}

/**
 * Total cover of layers, [0, 1]: `random` overlap 1 − Π(1 − c) or `maximum` overlap max c. Common practice, no source. A mean
 * over the whole sky: a target sits in one direction of it.
 */
export const totalCover = ({ low, middle, high }: CloudLayers, overlap: "random" | "maximum"): number =>
  overlap === "random" ? 1 - (1 - low) * (1 - middle) * (1 - high) : Math.max(low, middle, high);

/** Cover that spoils exposures: random overlap with high cloud counted half, a proposal of this project. */
export const spoilingCover = (layers: CloudLayers): number =>
  totalCover({ ...layers, high: layers.high / 2 }, "random");

/** Worth of a minute through haze that dims by `lossMag` while the sky stays: 10^(−0.8 Δm). Definition. */
export const hazeWorth = (lossMag: number): number => 10 ** (-0.8 * Math.max(0, lossMag));

/** How much cirrus over the whole sky dims, mag; a proposal of this project: thin veils half, thick ones twice that. */
const CIRRUS_MAG = 1;

/** Share of a minute's worth that is left through haze and high cloud, (0, 1]. */
export const skyQuality = (hazeMag: number | null, highCloud: number | null): number =>
  hazeWorth((hazeMag ?? 0) + CIRRUS_MAG * (highCloud ?? 0));

const [FOG_SPREAD_C, FOG_CALM_MS, FOG_WINDY_MS, FOG_MOST] = [1.5, 1, 3, 0.85];

/**
 * Odds of fog at the ground, [0, 1]: as the air comes to its dew point and stands still; 0 where either is not known. A proposal of
 * this project: forecasts of cloud do not see it, and it comes to valleys first.
 */
export function fogOdds(airC: number | null, dewC: number | null, windMs: number | null): number {
  if (airC === null || dewC === null || windMs === null) return 0;
  const near = Math.min(1, Math.max(0, (FOG_SPREAD_C - (airC - dewC)) / FOG_SPREAD_C));
  const calm = Math.min(1, Math.max(0, (FOG_WINDY_MS - windMs) / (FOG_WINDY_MS - FOG_CALM_MS)));
  return FOG_MOST * near * calm;
}

const [A, B] = [17.625, 243.04];

/** Saturation pressure over water in hPa, −40 to 50 °C: Alduchov & Eskridge 1996, J. Appl. Meteorol. 35, 601. */
export const saturationHPa = (airC: number): number => 6.1094 * Math.exp((A * airC) / (airC + B));

/** Dew point in °C from the air temperature and the relative humidity (0, 1]; same source, −40 to 50 °C. */
export function dewPointC(airC: number, humidity: number): number {
  if (!(humidity > 0)) throw new RangeError(`humidity must be above 0, got ${humidity}`);
  const gamma = Math.log(humidity) + (A * airC) / (B + airC);
  return (B * gamma) / (A - gamma);
}

/** Relative humidity [0, 1] from air temperature and dew point; the inverse of `dewPointC`. */
export const humidityOf = (airC: number, dewC: number): number => saturationHPa(dewC) / saturationHPa(airC);

/** Air this close to its dew point wets optics, °C; common practice, no source: glass under an open sky runs 2–5 °C below air. */
export const DEW_SPREAD_C = 2.5;

/** What the air does to cold glass. */
export type Wetness = "dry" | "dew" | "frost";

/** Whether optics get wet: spread under 2.5 °C, frost when the dew point is below freezing. Valley fog can come without it. */
export const wetnessOf = (airC: number, dewC: number): Wetness =>
  airC - dewC >= DEW_SPREAD_C ? "dry" : dewC < 0 ? "frost" : "dew";

/** Dynamic pressure of wind in Pa, ½ ρ v², ρ 1.225 kg/m³ (definition). */
export const windPressurePa = (metrePerSec: number): number => 0.5 * 1.225 * metrePerSec ** 2;

/** Wind felt in a garden over the forecast at 10 m height: 0.3 to 0.7, from memory. */
export const USUAL_WIND_SHARE = 0.6;
/** Gusts a short refractor bears, km/h; common practice, no source. */
export const USUAL_GUST_LIMIT_KMH = 28;
/** From here on everything is lashed down or carried in, km/h; common practice, no source. */
export const SECURE_GUST_KMH = 40;
