export { nextRev, parseRev } from "./clock";
export { RECORD_KINDS, recordKey, type Edit, type Heads, type RecordKind, type StoredRecord } from "./record";
export { editRecord, joinHeads, mergeStores, winnerOf, losersOf, newsIn } from "./merge";
export { memberTotals, type MemberTotal } from "./totals";
