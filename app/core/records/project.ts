import { RULE_FIELDS, LIGHT_FIELDS, SHARING_FIELDS } from "./project-fields";
import Joi from "joi";
import { CHANNELS, type ObjectLight } from "~/core/exposure";
import { PANEL_SCHOOLS, SHARING_WAYS, URGENCIES, type ProjectData, type SharingRules } from "~/core/plan";
import { type CycleStep, type ShootingRules } from "~/core/season";
import { id, maybeId, name, night, note, numberOf } from "./fields";
import { channel } from "./filter";
import { moonWishes, perChannel } from "./moon";
import { objectOf, type RecordSchema } from "./kind";

export const project: RecordSchema<ProjectData> = {
  version: 3,
  migrations: [
    // 1 → 2: place and rig are each member's own, in their part of the project.
    ({ placeId, rigId, ...data }) =>
      typeof placeId === "string" && typeof rigId === "string" ? { ...data, begun: { placeId, rigId } } : data,
    (data) => data, // 2 → 3: what its target shines with can be kept, and how twilight is taken
  ],
  schema: objectOf<ProjectData>({
    name,
    targetId: id,
    startedOn: night,
    school: Joi.string()
      .valid(...PANEL_SCHOOLS)
      .label("School"),
    notes: note,
    frameId: maybeId.optional(),
    urgency: Joi.string()
      .valid(...Object.keys(URGENCIES))
      .optional()
      .label("Urgency"),
    deadline: night.optional().label("Deadline"),
    moon: moonWishes.optional(),
    light: objectOf<ObjectLight>({
      ha: numberOf(LIGHT_FIELDS.line),
      oiii: numberOf(LIGHT_FIELDS.line),
      sii: numberOf(LIGHT_FIELDS.line),
      magPerArcsec2: numberOf(LIGHT_FIELDS.surface).allow(null),
    })
      .optional()
      .label("Light of the target"),
    hours: Joi.string().valid("kept", "light").optional().label("Whose hours"),
    rules: objectOf<ShootingRules>({
      roundSubs: numberOf(RULE_FIELDS.roundSubs).optional(),
      first: channel.optional(),
      cycle: Joi.array()
        .min(2)
        .max(CHANNELS.length)
        .items(objectOf<CycleStep>({ channel, subs: numberOf(RULE_FIELDS.cycleSubs) }))
        .unique("channel")
        .optional()
        .label("Channels in turn"),
      leastMin: numberOf(RULE_FIELDS.leastMin).optional(),
      isToFinish: Joi.boolean().optional(),
      clearRun: numberOf(RULE_FIELDS.clearRun).optional(),
    }).optional(),
    finishedOn: night.optional().label("Finished"),
    restsUntil: night.optional().label("Rests until"),
    sharing: objectOf<SharingRules>({
      way: Joi.string()
        .valid(...SHARING_WAYS)
        .label("Who shoots what"),
      floor: numberOf(SHARING_FIELDS.floor).optional(),
      hours: Joi.object().pattern(id, numberOf(SHARING_FIELDS.hours)).max(50).optional().label("Hours promised"),
      hand: Joi.object()
        .pattern(id, perChannel<number>(numberOf(SHARING_FIELDS.hours)))
        .max(50)
        .optional()
        .label("Hours by hand"),
      ratio: Joi.array().items(numberOf(SHARING_FIELDS.ratio)).max(20).optional().label("Ratio of channels"),
    }).optional(),
    measuredBy: id.optional(),
    begun: objectOf<NonNullable<ProjectData["begun"]>>({ placeId: id, rigId: id }).optional(),
  }),
};
