export { decodeRecord, decodeData, type RecordFault } from "./decode";
