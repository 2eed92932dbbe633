export { orAborted } from "~/workers/client";
export type { BestOfMonth, Coverage, CoverageLayer, RankedEntry, RankQuestion, Sharing } from "~/workers/sky";
