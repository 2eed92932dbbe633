import Joi from "joi";
import type { SkyMesh } from "~/core/framing";
import type { Result } from "~/core/result";
import { openDrawer, type Drawer, type StorageFault } from "./driver";
import { databaseName } from "./session";

/** A picture of one's own under the chart of a frame. */
export interface KeptPicture {
  readonly name: string;
  /** JPEG or PNG as any browser reads it. */
  readonly bytes: ArrayBuffer;
  readonly type: string;
  readonly mesh: SkyMesh;
  readonly opacity: number;
  /** The four corners as typed, where a person gave them. */
  readonly corners: readonly string[] | null;
}

const node = Joi.array().ordered(Joi.number().min(0).max(360).required(), Joi.number().min(-90).max(90).required());
const schema = Joi.object({
  name: Joi.string().allow("").max(300).required(),
  bytes: Joi.any()
    .custom((value: unknown, helper) =>
      Object.prototype.toString.call(value) === "[object ArrayBuffer]" ? value : helper.error("any.invalid"),
    )
    .required(),
  type: Joi.string().allow("").required(),
  mesh: Joi.object({
    columns: Joi.number().integer().min(1).max(64).required(),
    rows: Joi.number().integer().min(1).max(64).required(),
    nodes: Joi.array().items(node).min(4).required(),
  }).required(),
  opacity: Joi.number().greater(0).max(1).required(),
  corners: Joi.array().items(Joi.string().allow("")).length(4).allow(null).required(),
});

let opened: Promise<Drawer> | null = null;
/** A database of its own: pictures are large, and no merge ever looks at them. */
const drawer = (): Promise<Drawer> => (opened ??= openDrawer(`${databaseName()}-pictures`, "pictures"));

let last: { readonly frameId: string; readonly picture: Promise<KeptPicture | null> } | null = null;

/** The picture kept for a frame; null when there is none, or none that reads. The last one asked for is remembered. */
export function pictureOf(frameId: string): Promise<KeptPicture | null> {
  if (last?.frameId !== frameId) last = { frameId, picture: readPicture(frameId) };
  return last.picture;
}

async function readPicture(frameId: string): Promise<KeptPicture | null> {
  const stored = await (await drawer()).read(frameId);
  if (stored === null) return null;
  const { error, value } = schema.validate(stored, { convert: false }) as { error?: Error; value: KeptPicture };
  return error ? null : value;
}

/** Keeps a picture for a frame in place of the one before; null takes it away. */
export async function keepPicture(frameId: string, picture: KeptPicture | null): Promise<Result<null, StorageFault>> {
  last = null;
  const d = await drawer();
  return picture === null ? d.drop(frameId) : d.write(new Map([[frameId, picture]]));
}

/** Takes all pictures away and hands them back raw. */
export async function takePictures(): Promise<ReadonlyMap<string, unknown>> {
  last = null;
  const d = await drawer();
  const all = await d.readAll();
  await d.clear();
  return all;
}

/** Puts back what `takePictures` took. */
export async function putBackPictures(all: ReadonlyMap<string, unknown>): Promise<void> {
  last = null;
  await (await drawer()).write(all);
}
