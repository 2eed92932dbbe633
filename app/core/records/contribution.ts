import Joi from "joi";
import { CULL_REASONS, type ContributionData } from "~/core/ledger";
import { decDeg, exposureSec, id, instantMs, night, note, numberOf, raDeg, textOf, type NumberField } from "./fields";
import { channel } from "./filter";
import { objectOf, type RecordSchema } from "./kind";

/** Numbers of a log entry. */
export const CONTRIBUTION_FIELDS = {
  exposureSec: { label: "Sub", unit: "s", min: 0, max: 36_000, isAboveMin: true },
  taken: { label: "Taken", unit: "subs", min: 0, max: 100_000, isWhole: true },
  kept: { label: "Kept", unit: "subs", min: 0, max: 100_000, isWhole: true },
} as const satisfies Readonly<Record<string, NumberField>>;

export const contribution: RecordSchema<ContributionData> = {
  version: 2,
  migrations: [(data) => data], // 1 → 2: where it pointed, and at which gain, can be said
  schema: objectOf<ContributionData>({
    projectId: id,
    panel: textOf({ label: "Panel", max: 20 }),
    channel,
    night,
    memberId: id,
    rigId: id,
    placeId: id,
    exposureSec,
    taken: numberOf(CONTRIBUTION_FIELDS.taken),
    kept: numberOf(CONTRIBUTION_FIELDS.kept).max(Joi.ref("taken")),
    reason: Joi.string()
      .valid("", ...CULL_REASONS)
      .label("Why not kept"),
    worthRate: numberOf({ label: "Worth of a minute", min: 0, max: 10 }).allow(null),
    startMs: instantMs.allow(null),
    fileName: textOf({ label: "File", max: 4000 }),
    note,
    at: objectOf<NonNullable<ContributionData["at"]>>({
      raDeg,
      decDeg,
      positionAngleDeg: numberOf({ label: "Camera angle", unit: "°", min: -360, max: 360 }).allow(null),
    }).optional(),
    frameId: id.optional(),
    gain: numberOf({ label: "Gain", min: -100, max: 100_000 }).optional(),
  }),
};
