import type { WishData } from "~/core/plan";
import { id } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

export const wish: RecordSchema<WishData> = {
  version: 1,
  migrations: [],
  schema: objectOf<WishData>({ memberId: id, targetId: id }),
};
