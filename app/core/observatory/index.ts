export { exposureFrame, frameSeed, type FrameAsk, type FrameSubject } from "./exposure-frame";
export { stackedPictures, type StackedPictures } from "./stacked";
export { standInObservatory, type FrameFile } from "./observatory";
export {
  afterCommand,
  standInAt,
  type Command,
  type ObservatoryState,
  type StandInKit,
  type TakenExposure,
} from "./stand-in";
export {
  drawnWeather,
  isOpen,
  MOMENT_MS,
  momentAt,
  type HourForecast,
  type SkyMoment,
  type TrueWeather,
} from "./true-weather";
