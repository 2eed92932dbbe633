export { instantOfRev, nextRev, parseRev } from "./clock";
export { RECORD_KINDS, keyOfRaw, recordKey, type Edit, type Heads, type RecordKind, type StoredRecord } from "./record";
export {
  editRecord,
  fromTheFuture,
  isAlike,
  joinHeads,
  losersOf,
  mergeStores,
  newsIn,
  unlike,
  unsoundness,
  winnerOf,
  type ClockFault,
} from "./merge";
export {
  allShootAll,
  bestSplit,
  inRatio,
  splitOdds,
  splitOf,
  type ChannelGoal,
  type CrewSite,
  type SiteNight,
  type Split,
  type SplitHours,
} from "./who-shoots";
export { undoingEdits, type Change } from "./undo";
export { memberTotals, type MemberTotal } from "./totals";
export { handOverItems, USUAL_HAND_OVER, type HandOverData, type HandOverItem } from "./hand-over";
