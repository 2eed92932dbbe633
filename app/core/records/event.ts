import Joi from "joi";
import { CULL_REASONS, type CullReason } from "~/core/ledger";
import { CLOUD_DECISIONS, type BlockKey, type CloudDecision, type Happening, type NightEventData } from "~/core/live";
import { id, instantMs, night } from "./fields";
import { channel } from "./filter";
import { objectOf, type Plain, type RecordSchema } from "./kind";

const MOST_SUBS = 100_000; // of a block
const MOST_WORDS = 400;

const block = objectOf<BlockKey>({
  projectId: id,
  panel: Joi.string().max(60),
  channel,
  subSec: Joi.number().greater(0).max(86_400),
  startMs: instantMs,
});
const subs = Joi.number().integer().min(0).max(MOST_SUBS);
/** The shape of what has these words. */
type Of<W extends Happening["what"]> = Extract<Happening, { readonly what: W }>;
const what = <W extends Happening["what"]>(...words: readonly W[]) => Joi.string<W>().valid(...words);

const HAPPENINGS: readonly Joi.ObjectSchema[] = [
  objectOf<{ readonly what: "begun" | "flipped" | "dithered" | "packedUp" }>({
    what: what("begun", "flipped", "dithered", "packedUp"),
  }),
  objectOf<Of<"done">>({
    what: what("done"),
    of: block,
    kept: subs,
    lost: subs,
    reason: Joi.string<CullReason | "">().valid("", ...CULL_REASONS),
  }),
  objectOf<Of<"cloud">>({ what: what("cloud"), isClear: Joi.boolean() }),
  objectOf<Of<"focused">>({
    what: what("focused"),
    airC: Joi.number().min(-80).max(60).allow(null),
    steps: Joi.number().integer().min(-1_000_000).max(1_000_000).allow(null),
  }),
  objectOf<Of<"swapped">>({ what: what("swapped"), to: block }),
  objectOf<Of<"trouble">>({ what: what("trouble"), words: Joi.string().trim().min(1).max(MOST_WORDS) }),
  objectOf<Of<"checked">>({ what: what("checked"), check: id, isDone: Joi.boolean() }),
  objectOf<Of<"decided">>({
    what: what("decided"),
    choice: Joi.string<CloudDecision>().valid(...CLOUD_DECISIONS),
    untilMs: instantMs.allow(null),
  }),
];

export const event: RecordSchema<NightEventData> = {
  version: 2,
  migrations: [(data) => data], // 1 → 2: a line of the checklist can be ticked, and a dither by hand told
  schema: objectOf<NightEventData>({
    memberId: id,
    night,
    rigId: id,
    atMs: instantMs,
    is: Joi.alternatives<Plain<Happening>>(...HAPPENINGS),
  }),
};
