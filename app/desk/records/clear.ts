import type { KeepFault } from "~/core/records";
import { ok, type Result } from "~/core/result";
import { slot, type Desk } from "~/desk/desk";
import { REHEARSAL_FOLDER, stopWatching } from "~/desk/log/landings";
import { thePictures } from "~/desk/projects/pictures";
import { theDrafts, theStore } from "./kept";

interface Taken {
  readonly records: ReadonlyMap<string, unknown>;
  readonly pictures: ReadonlyMap<string, unknown>;
}
/** What this tab deleted at one stroke and has not put back. */
const cleared = slot(() => ({ taken: null as Taken | null }));

/** Whether this tab deleted everything at one stroke and has not put it back. */
export const canPutBack = (desk: Desk): boolean => desk.at(cleared).taken !== null;

/** Deletes everything here; this tab remembers it, so that it can be put back. */
export async function clearEverything(desk: Desk): Promise<Result<null, KeepFault>> {
  stopWatching(desk); // what lands in a folder would go into an empty house
  const records = await desk.at(theStore).empty();
  if (!records.ok) return records;
  await desk.folders.dropOwn(REHEARSAL_FOLDER); // simulated frames: a rehearsal makes them again
  await desk.workers.survey.forget().catch(() => undefined); // where somebody looked at the sky; what stays is the sky's
  const pictures = await desk.at(thePictures).takeAll();
  desk.at(theDrafts).dropAll();
  if (records.value.size > 0 || pictures.size > 0) desk.at(cleared).taken = { records: records.value, pictures };
  return ok(null);
}

/** Puts back what `clearEverything` took. */
export async function putBackEverything(desk: Desk): Promise<Result<null, KeepFault>> {
  const here = desk.at(cleared);
  if (!here.taken) return ok(null);
  const { records, pictures } = here.taken;
  const done = await desk.at(theStore).refill(records);
  if (!done.ok) return done;
  await desk.at(thePictures).putBack(pictures);
  here.taken = null;
  return ok(null);
}
