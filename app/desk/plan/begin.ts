import type { EditOf } from "~/core/records";
import { beginningOf } from "~/core/plan";
import { eveningsOf } from "~/core/season";
import type { NightDate } from "~/core/time";
import type { Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";
import { seasonPlan } from "./season";
import { begunOn } from "./season-question";
import { setUpFrom } from "./sheet";

/** The edit that keeps what is planned for a night as begun; null where it has begun already, or nothing is planned. */
export async function beginEdit(library: Library, night: NightDate): Promise<EditOf<"begun"> | null> {
  if (begunOn(library, night)) return null;
  const memberId = meOf(library) ?? "me";
  const data = beginningOf(await seasonPlan(library), night, memberId, library.desk.now());
  return data ? { kind: "begun", id: `begun-${memberId}-${night}`, data, baseRev: "latest" } : null;
}

/** The same for a first look at the sky: it begins the night where set-up time is past. */
export async function beginByLook(library: Library, night: NightDate): Promise<EditOf<"begun"> | null> {
  const evenings = eveningsOf(await seasonPlan(library), night);
  const setUpMs = setUpFrom(library, night, evenings);
  return setUpMs !== null && library.desk.now() >= setUpMs ? beginEdit(library, night) : null;
}
