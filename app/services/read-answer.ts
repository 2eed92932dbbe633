// A file of its own, so that it comes with the first answer.
export { readForecast, readTypedForecast } from "~/core/formats";
