import { specsOf, type NumberSpec } from "~/components/forms/form-numbers";
import { AWAY_FIELDS, PLACE_FIELDS } from "~/core/records";

const WIND: NumberSpec & { readonly name: "windPercent" } = {
  name: "windPercent",
  label: "Forecast wind that is felt",
  unit: "%",
  min: 0,
  max: 100,
  hint: "Forecasts hold for 10 m height: gardens 30–70, a ridge 80–100.",
};

/** The seeing that is proposed for a new place, arcseconds; common practice, no source. */
export const USUAL_SEEING_ARCSEC = 3;

/** Number boxes of a place. */
export const PLACE_NUMBERS = [...specsOf(PLACE_FIELDS), ...specsOf(AWAY_FIELDS), WIND] as const;
