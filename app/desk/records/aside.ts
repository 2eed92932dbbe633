import { RECORD_KINDS } from "~/core/crew";
import { decodeData, type KeepFault } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import type { Desk } from "~/desk/desk";
import { theStore } from "./kept";
import { undoable, type Kept } from "./acts";
import type { Quarantined } from "./library";

const kept = (undoId: string): Kept => ({ undoId, revs: {}, collided: [] });

/** Drops a thing that does not read; it can be undone. */
export async function dropAside(desk: Desk, thing: Quarantined): Promise<Result<Kept, KeepFault>> {
  const done = await desk.at(theStore).takeAside(thing);
  if (!done.ok) return done;
  const undoId = undoable(desk, async () => {
    const back = await desk.at(theStore).putAside(thing);
    return back.ok ? ok(kept(undoable(desk, async () => dropAside(desk, thing)))) : back;
  });
  return ok(kept(undoId));
}

/**
 * Puts a record in the place of a thing that does not read. The text is JSON with `kind`, `id` and `data`; its clock reading
 * does not matter, since mending is a new version. A fault in words when the text is no such record.
 */
export async function mendAside(
  desk: Desk,
  thing: Quarantined,
  text: string,
): Promise<Result<Result<Kept, KeepFault>, string>> {
  let raw: { readonly kind?: unknown; readonly id?: unknown; readonly data?: unknown } | null;
  try {
    raw = JSON.parse(text) as typeof raw;
  } catch (error) {
    return err(error instanceof Error ? error.message : "not JSON");
  }
  const kind = RECORD_KINDS.find((k) => k === raw?.kind);
  if (!kind) return err("kind: must be one of " + RECORD_KINDS.join(", "));
  if (typeof raw?.id !== "string" || raw.id === "") return err("id: must be a text");
  const data = decodeData(kind, raw.data);
  if (!data.ok) return err(`${["data", data.error.path].filter((p) => p !== "").join(".")}: ${data.error.message}`);
  const done = await desk.at(theStore).takeAside(thing, [{ kind, id: raw.id, data: data.value, baseRev: "latest" }]);
  return ok(done.ok ? ok(kept(undoable(desk, () => dropAside(desk, thing)))) : done);
}
