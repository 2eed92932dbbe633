import { KINDS } from "~/core/catalog";
import Joi from "joi";
import { RECORD_KINDS, parseRev, type RecordKind, type StoredRecord } from "~/core/crew";
import { CHANNELS } from "~/core/exposure";
import { CULL_REASONS } from "~/core/ledger";
import { err, ok, type Result } from "~/core/result";
import { isNightDate, isTimeZone } from "~/core/time";

/** What is wrong with a record: where in it, and in words. */
export interface RecordFault {
  readonly code: "recordInvalid";
  readonly path: string;
  readonly message: string;
}

const text = Joi.string().allow("").max(4000);
const name = Joi.string().trim().min(1).max(120);
const id = Joi.string().min(1).max(120);
const positive = (max: number) => Joi.number().greater(0).max(max);
const share = Joi.number().min(0).max(1);
const channel = Joi.string().valid(...CHANNELS);
const night = Joi.string().custom((v: string, h) => (isNightDate(v) ? v : h.error("any.invalid")));
const zone = Joi.string().custom((v: string, h) => (isTimeZone(v) ? v : h.error("any.invalid")));

const shortName = Joi.string().allow("").max(60);
const azimuth = Joi.number().min(0).less(360);
const maybe = Joi.number().allow(null);
const skyline = Joi.array()
  .items(
    Joi.object({
      azimuthDeg: Joi.number().min(0).less(360).required(),
      altitudeDeg: Joi.number().min(0).max(90).required(),
    }),
  )
  .custom((v: { azimuthDeg: number }[], h) =>
    v.length !== 1 && v.every((p, i) => i === 0 || v[i - 1]!.azimuthDeg < p.azimuthDeg) ? v : h.error("any.invalid"),
  );

const overheads = Joi.object({
  downloadSec: Joi.number().min(0).max(600), ditherSec: Joi.number().min(0).max(600), ditherEvery: Joi.number().integer().min(1).max(100), focusMin: Joi.number().min(0).max(60),
  focusEveryMin: Joi.number().min(10).max(1440), filterChangeSec: Joi.number().min(0).max(600), panelChangeSec: Joi.number().min(0).max(1800), flipMin: Joi.number().min(0).max(60), setUpMin: Joi.number().min(0).max(240),
}).options({ presence: "required" }); // prettier-ignore

const DATA: Readonly<Record<RecordKind, Joi.ObjectSchema>> = {
  place: Joi.object({
    name, latitudeDeg: Joi.number().min(-90).max(90), longitudeDeg: Joi.number().min(-180).max(180), elevationM: Joi.number().min(-430).max(6000), timeZone: zone,
    skyMagPerArcsec2: Joi.number().min(14).max(22.2), skyline, minAltitudeDeg: Joi.number().min(0).max(80), seeingArcsec: Joi.number().min(0.3).max(10), clearChance: Joi.array().length(12).items(share),
    landmarks: Joi.array().max(60).items(Joi.object({ name: shortName, shape: Joi.string().valid("box", "pole", "tree"), azimuthDeg: azimuth, widthDeg: positive(180), altitudeDeg: Joi.number().greater(0).max(90) })).optional(),
    domes: Joi.array().max(24).items(Joi.object({ name: shortName, azimuthDeg: azimuth, magPerArcsec2: Joi.number().min(12).max(22.5), widthDeg: Joi.number().min(3).max(120) })).optional(),
    lamps: Joi.array().max(24).items(Joi.object({ name: shortName, azimuthDeg: azimuth, altitudeDeg: Joi.number().min(-30).max(90), radiusDeg: Joi.number().greater(0).max(90) })).optional(),
    travelMin: Joi.number().min(0).max(1440).optional(), extraSetUpMin: Joi.number().min(0).max(240).optional(), windShare: share.optional(),
  }),
  rig: Joi.object({
    name, focalLengthMm: positive(20_000), reducerFactor: Joi.number().min(0.2).max(5), apertureMm: positive(2000), obstruction: Joi.number().min(0).max(0.7), throughput: Joi.number().min(0.1).max(1),
    sensor: Joi.object({ widthPx: Joi.number().integer().min(16).max(40_000), heightPx: Joi.number().integer().min(16).max(40_000), pixelPitchUm: positive(30), binning: Joi.number().integer().min(1).max(8) }),
    isColour: Joi.boolean(), cameraName: text, quantumEfficiency: Joi.number().min(0.05).max(1), readNoiseE: positive(50), gainEPerAdu: positive(100), bits: Joi.number().integer().min(8).max(32),
    offsetAdu: Joi.number().min(0).max(60_000), fullWellE: positive(5_000_000), darkEPerSec: Joi.number().min(0).max(100), workingTempC: Joi.number().min(-60).max(50), isCooled: Joi.boolean(), isGuided: Joi.boolean(),
    longestUnguidedSec: positive(3600), rotator: Joi.string().valid("none", "manual", "motor"), reflections: Joi.number().integer().min(0).max(6), flipsAtMeridian: Joi.boolean(), filterIds: Joi.array().items(id), overheads, gustLimitKmh: positive(200).optional(), slotMm: Joi.number().min(0).max(30).optional(),
  }),
  filter: Joi.object({ name, channel, centreNm: Joi.number().min(300).max(1100), bandwidthNm: positive(1000), transmission: Joi.number().min(0.05).max(1), thicknessMm: Joi.number().min(0).max(30).optional() }),
  project: Joi.object({ name, targetId: id, placeId: id, rigId: id, startedOn: night, school: Joi.string().valid("allPanelsEveryNight", "panelAfterPanel"), notes: text, frameId: Joi.string().max(120).optional() }),
  frame: Joi.object({
    projectId: id, raDeg: Joi.number().min(0).less(360), decDeg: Joi.number().min(-90).max(90), positionAngleDeg: Joi.number().min(0).less(360), columns: Joi.number().integer().min(1).max(10),
    rows: Joi.number().integer().min(1).max(10), overlap: Joi.number().min(0).max(0.5), overlapRows: Joi.number().min(0).max(0.5).optional(), rowShift: Joi.number().min(-0.5).max(0.5).optional(),
    extra: Joi.array().max(100).items(Joi.object({ xArcmin: Joi.number(), yArcmin: Joi.number() }).options({ presence: "required" })).optional(),
    skipped: Joi.array().max(200).items(Joi.number().integer().min(1)).optional(), names: Joi.object().pattern(Joi.string().max(4), Joi.string().allow("").max(60)).optional(),
    order: Joi.array().max(200).items(Joi.number().integer().min(1)).optional(), title: Joi.string().allow("").max(120).optional(),
    outlines: Joi.array().max(40).items(Joi.object({ name, corners: Joi.array().min(3).max(400).items(Joi.array().ordered(Joi.number().min(0).less(360), Joi.number().min(-90).max(90)).length(2)) }).options({ presence: "required" })).optional(),
  }),
  goal: Joi.object({
    projectId: id, protectedMag: Joi.number().min(0).max(20),
    channels: Joi.array().items(Joi.object({ channel, filterId: id, hoursPerPanel: Joi.number().min(0).max(500), subSec: positive(7200) }).options({ presence: "required" })),
  }),
  contribution: Joi.object({
    projectId: id, panel: Joi.string().max(20), channel, night, memberId: id, rigId: id, placeId: id, exposureSec: positive(36_000), taken: Joi.number().integer().min(0).max(100_000),
    kept: Joi.number().integer().min(0).max(Joi.ref("taken")), reason: Joi.string().valid("", ...CULL_REASONS), worthRate: Joi.number().min(0).max(10).allow(null), startMs: Joi.number().allow(null), fileName: text, note: text,
  }),
  calibration: Joi.object({
    type: Joi.string().valid("dark", "flat", "bias", "darkFlat"), memberId: id, camera: text, exposureSec: Joi.number().min(0).max(36_000), gain: Joi.number().allow(null), temperatureC: Joi.number().allow(null),
    filter: text, startMs: Joi.number().allow(null), fileName: text,
  }),
  night: Joi.object({ night, placeId: id, memberId: id, note: text }),
  member: Joi.object({ name }),
  settings: Joi.object({ memberId: id, placeId: Joi.string().allow(""), rigId: Joi.string().allow(""), lastBackupMs: Joi.number().allow(null), wishHours: Joi.number().min(0.25).max(12).optional() }),
  forecast: Joi.object({
    placeId: id, sourceId: id, sourceName: name, night,
    hours: Joi.array().max(60).items(Joi.object({
      atMs: Joi.number(), issuedMs: Joi.number(), lowCloud: share.allow(null), middleCloud: share.allow(null), highCloud: share.allow(null), humidity: share.allow(null), airC: maybe, dewC: maybe, windMs: maybe, gustMs: maybe,
      rainChance: share.allow(null), seeingArcsec: maybe, hazeMag: maybe,
    }).options({ presence: "required" })),
  }),
  look: Joi.object({ placeId: id, memberId: id, atMs: Joi.number(), isClear: Joi.boolean() }),
  target: Joi.object({
    name, raDeg: Joi.number().min(0).less(360), decDeg: Joi.number().min(-90).max(90), kind: Joi.string().valid(...KINDS), majorArcmin: positive(7200).allow(null), light: Joi.string().valid("continuum", "Ha", "OIII", "mixed"),
    neighbourId: Joi.string().allow("").max(120), note: text,
  }),
}; // prettier-ignore

const RECORD = Joi.object({
  id, kind: Joi.string().valid(...RECORD_KINDS), rev: Joi.string().custom((v: string, h) => (parseRev(v) ? v : h.error("any.invalid"))), author: id,
  seen: Joi.object().pattern(Joi.string(), Joi.string()), deletedAt: Joi.number().optional(), data: Joi.object().unknown(true),
}).options({ presence: "required" }); // prettier-ignore

const OPTIONS = {
  presence: "required",
  allowUnknown: true,
  convert: false,
  abortEarly: true,
  errors: { wrap: { label: false } },
} as const;

function check(schema: Joi.Schema, value: unknown, prefix: string): Result<unknown, RecordFault> {
  const r = schema.validate(value, OPTIONS);
  if (!r.error) return ok(r.value);
  const detail = r.error.details[0];
  return err({
    code: "recordInvalid",
    path: [prefix, ...(detail?.path ?? [])].filter((p) => p !== "").join("."),
    message: detail?.message ?? r.error.message,
  });
}

/** Checks the data of a record of a kind. */
export const decodeData = (kind: RecordKind, data: unknown): Result<unknown, RecordFault> =>
  check(DATA[kind], data, "");

/** Reads one record from storage or a file. Fields this version does not know are kept. A tombstone's data is not looked at. */
export function decodeRecord(value: unknown): Result<StoredRecord, RecordFault> {
  const outer = check(RECORD, value, "");
  if (!outer.ok) return outer;
  const record = outer.value as StoredRecord;
  if (record.deletedAt !== undefined) return ok(record);
  const inner = check(DATA[record.kind], record.data, "data");
  return inner.ok ? ok(record) : inner;
}
