export { readFitsHeader, type FitsFault, type FitsHeader, type FitsValue } from "./fits-header";
export { readWcs, type FitsWcs } from "./fits-wcs";
export { exposureFactsOf } from "./fits-facts";
export { panelsToCsv, PANEL_COLUMNS } from "./panel-csv";
export { runSheetToCalendar } from "./calendar";
export { parseSkyline, formatSkyline, type SkylineFault } from "./skyline-text";
export { decodeRecord, decodeData, type RecordFault } from "./record-schema";
export {
  decodeBundle,
  encodeBundle,
  MAX_BUNDLE_BYTES,
  type Bundle,
  type BundleFault,
  type BundleScope,
} from "./bundle";
