import { codesText, textToCodes, type BundleFault, type CodesRead } from "~/core/formats";
import { isOf } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import type { NightDate } from "~/core/time";
import type { Desk } from "~/desk/desk";
import { lookInto, readBundle } from "~/desk/records/file-view";
import { libraryHere } from "~/desk/records/open-library";
import { writeNight } from "~/desk/records/written";

/** The presses of a night as codes, for the other device to read from this screen; null = too many, that goes by file. */
export const nightCodes = async (desk: Desk, night: NightDate): Promise<readonly string[] | null> =>
  textToCodes((await writeNight(desk, night)).text);

/** What codes of another device bring, before it is taken over. */
export interface NightBrought {
  /** By which it is joined. */
  readonly handle: string;
  readonly presses: number;
  /** Of the presses and what goes with them, what is not here yet. */
  readonly fresh: number;
}

const OF_NIGHT = ["event", "begun", "look"] as const;

/** Looks into what codes say; null while some are missing. Of anything but what a night's codes carry nothing is taken. */
export async function lookIntoCodes(
  desk: Desk,
  read: CodesRead,
  signal: AbortSignal,
): Promise<Result<NightBrought | null, BundleFault | { readonly code: "broken" }>> {
  const text = codesText(read);
  if (!text.ok) return text;
  if (text.value === null) return ok(null);
  const bundle = await readBundle(desk, new Blob([text.value]), signal);
  if (!bundle.ok) return err(bundle.error);
  const records = bundle.value.records.filter((r) => OF_NIGHT.some((kind) => isOf(kind, r)));
  const { scope, exportedAt } = bundle.value;
  const view = await lookInto(await libraryHere(desk), { scope, exportedAt, records, refused: [] }, "codes", signal);
  return ok({ handle: view.handle, presses: records.filter((r) => isOf("event", r)).length, fresh: view.fresh });
}
