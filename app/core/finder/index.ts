export { finderPath, nakedEyeLimitMag, type FinderPath, type GuideStar, type Hop } from "./finder";
export { chartFrame, chartPoint, chartSkyline, turned, type ChartPoint, type ChartTurn } from "./finder-chart";
