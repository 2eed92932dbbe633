export {
  CLOUD_DECISIONS,
  inOrder,
  packedUpMs,
  type BlockKey,
  type CloudDecision,
  type Happening,
  type NightEvent,
  type NightEventData,
} from "./event";
export { liveState, type LiveLine, type LiveState } from "./state";
export { dueNow, type Due, type DueFacts } from "./due";
export { cloudChoices, hoursAhead, type CloudChoice } from "./cloud";
export { airNow } from "./air";
export { focusSlope, type FocusSlope } from "./focus-slope";
export { toldSubs, type ToldSubs } from "./entries";
export { beginWatching, latestMs, lookAgain, type Listed, type Watched, type WatchShown } from "./folder";
export { latestLanding, type Landing } from "./landing";
