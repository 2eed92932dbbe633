export { IDLE, type Block, type Lane, type Programme, type SeasonJob, type SeasonPlan, type SeasonTask } from "./model";
export { capReward, riskReward, sqrtReward, type Reward } from "./reward";
export { playSeasons, type ProjectOdds, type SeasonOdds, type SeasonWeather } from "./seasons";
export {
  seasonTables,
  SLOT_MIN,
  type ChannelWant,
  type SeasonLane,
  type SeasonProject,
  type SeasonRequest,
  type SeasonTables,
} from "./tables";
export { solvedSeason, solveSeason, USUAL_OPTIONS, type SeasonAnswer, type SolveOptions } from "./solve";
