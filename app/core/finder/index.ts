export {
  finderPath,
  nakedEyeLimitMag,
  SKY_WAYS,
  type FinderPath,
  type GuideStar,
  type Hop,
  type SkyWay,
} from "./finder";
export { chartFrame, chartPoint, chartSkyline, turned, type ChartPoint, type ChartTurn } from "./finder-chart";
