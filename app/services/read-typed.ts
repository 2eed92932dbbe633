// A file of its own, so that it comes with the first forecast that is typed.
export { readTypedForecast } from "~/core/formats";
