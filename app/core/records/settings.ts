import { PLANNING_FIELDS, CALIBRATION_FIELDS, WISH_FIELD, USUAL_WISH_HOURS } from "./settings-fields";
import { id, instantMs, maybeId, numberOf } from "./fields";
import Joi from "joi";
import { USUAL_MOON, type MoonWishes } from "~/core/night";
import type { CalibrationSchool } from "~/core/ledger";
import type { PersonRules } from "~/core/season";
import { moonWishes } from "./moon";
import { objectOf, type RecordSchema } from "./kind";

/** Who one is, and what is chosen when a link does not say. */
export interface Settings {
  readonly memberId: string;
  readonly placeId: string;
  readonly rigId: string;
  readonly lastBackupMs: number | null;
  /** Usable hours that make going out worth while. */
  readonly wishHours: number;
  readonly moon: MoonWishes;
  /** Everything stands by sunset; only what needs stars is left. */
  readonly standsBeforeDark: boolean;
  /** Asks the simulated forecast services that ship with the app; the demo always does. */
  readonly simulatedServices: boolean;
  /** How nights are planned; absent = the usual way. */
  readonly planning?: PersonRules;
  /** Calibration frames one takes; absent = the usual. */
  readonly calibration?: CalibrationSchool;
  /** Clock times as 9:05 pm; absent = 21:05. */
  readonly clock?: "12h";
  /** Feet, inches, miles an hour and °F as well; absent = metric. What is stored is metric. */
  readonly units?: "imperial";
}

export const settings: RecordSchema<Settings> = {
  version: 5,
  // 1 → 2: the wish was left out until somebody changed it.
  migrations: [
    (data) => ({ wishHours: USUAL_WISH_HOURS, ...data }),
    // 2 → 3: everybody kept away by fixed separations; what that lost of a bright night was never said.
    (data) => ({ moon: USUAL_MOON, standsBeforeDark: true, simulatedServices: false, ...data }),
    (data) => data, // 3 → 4: how twilight is taken can be said
    (data) => data, // 4 → 5: clock and units can be said
  ],
  schema: objectOf<Settings>({
    memberId: id,
    placeId: maybeId,
    rigId: maybeId,
    lastBackupMs: instantMs.allow(null),
    wishHours: numberOf(WISH_FIELD),
    moon: moonWishes,
    standsBeforeDark: Joi.boolean(),
    simulatedServices: Joi.boolean(),
    clock: Joi.string().valid("12h").optional().label("Clock"),
    units: Joi.string().valid("imperial").optional().label("Units"),
    calibration: objectOf<CalibrationSchool>({
      darks: numberOf(CALIBRATION_FIELDS.darks),
      flats: numberOf(CALIBRATION_FIELDS.flats),
      biases: numberOf(CALIBRATION_FIELDS.biases),
      flatsBy: Joi.string().valid("darkFlat", "bias").label("What takes the bias off flats"),
    }).optional(),
    planning: objectOf<PersonRules>({
      targetsANight: numberOf(PLANNING_FIELDS.targetsANight),
      minBlockMin: numberOf(PLANNING_FIELDS.minBlockMin),
      mostHours: numberOf(PLANNING_FIELDS.mostHours).optional(),
      busyWeekdays: Joi.array().items(Joi.number().integer().min(0).max(6)).max(7).unique(),
      isOneRig: Joi.boolean(),
      drives: Joi.array()
        .max(50)
        .items(
          objectOf<NonNullable<PersonRules["drives"]>[number]>({
            placeId: id,
            fromHours: numberOf(PLANNING_FIELDS.fromHours),
          }),
        )
        .optional(),
    }).optional(),
  }),
};
