import { chartSky } from "./chart-sky";
import { demoPlan, sampleRecords } from "./samples";

/** What ships with the app, fetched from its own server. */
export const supplies = { sample: sampleRecords, plan: demoPlan, chart: chartSky };
