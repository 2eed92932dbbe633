export { brentRoot, crossings, extremum } from "./roots";
export { cubicAt, linearAt } from "./interpolate";
export { gammaCdf } from "./gamma";
export { normalCdf, normalQuantile } from "./normal";
export { normalFrom, randomFrom } from "./random";
export { FWHM_PER_SIGMA, median, percentile, SIGMA_PER_MAD } from "./statistics";
export { groupBy } from "./group-by";
