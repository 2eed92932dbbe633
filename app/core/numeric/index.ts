export { brentRoot, crossings, extremum } from "./roots";
export { cubicAt, linearAt } from "./interpolate";
export { normalCdf, normalPdf } from "./normal";
export { randomFrom } from "./random";
export { percentile } from "./statistics";
export { groupBy } from "./group-by";
