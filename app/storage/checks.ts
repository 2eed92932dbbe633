// A file of its own, so that it can come later than what asks for it.
export { decodeData, decodeRecord, stamped } from "~/core/records";
