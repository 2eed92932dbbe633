import { expose } from "comlink";
import { readForecast } from "~/core/formats";
import { dataVersions, decodeRecords, refusedEdit } from "~/core/records";

const api = { records: decodeRecords, refused: refusedEdit, versions: dataVersions, forecast: readForecast };

export type ReaderApi = typeof api;
expose(api);
