import { MOON_SHARE_FIELD, MOON_RULE_FIELDS } from "./moon-fields";
import Joi from "joi";
import { CHANNELS, type Channel } from "~/core/exposure";
import { MOON_SCHOOLS, TWILIGHT_SCHOOLS, type MoonSchool, type MoonWishes } from "~/core/night";
import type { MoonRule } from "~/core/sky";
import { numberOf, numbersOf } from "./fields";
import { objectOf, type Plain } from "./kind";

/** Something of each channel, as far as it has it. */
export const perChannel = <T>(schema: Joi.Schema): Joi.ObjectSchema<Plain<Partial<Record<Channel, T>>>> =>
  Joi.object(Object.fromEntries(CHANNELS.map((c) => [c, schema.optional()])));
/** One of the schools. */
export const moonSchool = Joi.string().valid(...MOON_SCHOOLS);

/** A person's or a project's wish about the light of Moon and twilight. */
export const moonWishes = objectOf<MoonWishes>({
  school: moonSchool.label("School of the Moon"),
  leastShare: numberOf({ label: MOON_SHARE_FIELD.label, min: 0.01, max: 0.95 }),
  twilight: Joi.string()
    .valid(...TWILIGHT_SCHOOLS)
    .optional()
    .label("School of twilight"),
  rules: perChannel<MoonRule>(objectOf(numbersOf(MOON_RULE_FIELDS))).optional(),
  channels: perChannel<MoonSchool>(moonSchool).optional(),
});
