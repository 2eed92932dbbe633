export { readFitsHeader, readHeaderText, type FitsFault, type FitsHeader } from "./fits-header";
export { pixelToSky, readWcs, type FitsWcs, type WcsFault } from "./fits-wcs";
export { isTableName, readExposureTable, type TableFault } from "./exposure-table";
export { exifFactsOf, isExifName, isSubName, type ExifFault } from "./exif-facts";
export { exposureFactsOf } from "./fits-facts";
export {
  csvTable,
  guessColumns,
  panelRows,
  panelsToCsv,
  spreadsheetCell,
  readPanelRows,
  type PanelListFault,
  type PanelRow,
} from "./panel-list";
export { panelsToVotable, readPanelVotable } from "./votable";
export { printable } from "./printable";
export { openPanelList, type OpenedPanelList } from "./panel-file";
export { frameOfPanels } from "./panels-to-frame";
export { nightPlan, nightPlanCsv, type BlockAim } from "./night-plan";
export { codesText, textToCodes, withCode, type CodesRead } from "./codes";
export { mocToFits, mocToJson } from "./moc";
export { writeFits } from "./write-fits";
export type { FitsCard } from "./fits-card";
export { headerCards } from "./header-cards";
export { runSheetToCalendar, seasonToCalendar } from "./calendar";
export { parseSkyline, readSkyline, formatSkyline, type SkylineFault } from "./skyline-text";
export { decodeBundle, type Bundle, type BundleFault } from "./bundle";
export { MAX_BUNDLE_BYTES, MOST_RECORDS, MOST_VERSIONS } from "./bundle-limits";
export { encodeBundle } from "./encode-bundle";
export { readForecast, type ForecastFault, type ForecastNote, type ReadForecast } from "./forecast-json";
export { forecastOfCoverage } from "./coverage-json";
export { readTypedForecast, type TypedFault } from "./forecast-typed";
export { deviationsOf, type RigDeviation } from "./frame-from-header";
export { decodeRow, pixelPlan, stretchPixels, decodeBand, samplePlan, type SamplePlan } from "./fits-pixels";
export { MAX_FORECAST_BYTES } from "./forecast-size";
export type { ReadAt } from "./tiff";
