import { fromTheFuture, newsIn, recordKey, type Edit, type Heads, type StoredRecord } from "~/core/crew";
import type { Bundle } from "~/core/formats";
import { groupBy } from "~/core/numeric";
import { isOf, withChanges, type KeepFault } from "~/core/records";
import { err, type Result } from "~/core/result";
import { takeShownPlan } from "~/desk/plan/season";
import type { SampleId } from "~/services/samples";
import type { Joined } from "~/storage/store";
import { changesIn } from "./file-changes";
import { headsHere, lookedInto, ofFile, type FileOwner } from "./file-view";
import { changeKey } from "./named-records";
import { theStore } from "./kept";
import type { Library } from "./library";
import { libraryHere } from "./open-library";
import { adoptParts, partOf } from "./parts";

export type { SampleId } from "~/services/samples";

/** The edits that keep of a file's changes what was said yes to, and settle the matter: neither side comes up again. */
async function chosenEdits(
  library: Library,
  here: ReadonlyMap<string, Heads>,
  fresh: readonly StoredRecord[],
  chosen: ReadonlySet<string>,
): Promise<Edit[]> {
  const versions = groupBy(fresh, recordKey);
  return (await changesIn(library, here, fresh)).flatMap((change): Edit[] => {
    const heads = here.get(recordKey(change))!;
    const theirs = versions.get(recordKey(change)) ?? [];
    const isGone = change.isDeleted && chosen.has(changeKey(change, null));
    const yes = change.fields.filter((f) => chosen.has(changeKey(change, f)));
    const { kind, id } = change;
    const settles = [...heads, ...theirs].map((r) => r.rev);
    const data = withChanges(heads[0].data, yes);
    return [{ kind, id, data, baseRev: "latest", settles, ...(isGone ? { isDeleted: true } : {}) }];
  });
}

/** How a file is joined. */
export interface JoinHow {
  readonly owner: FileOwner;
  readonly letsAheadIn: boolean;
  /** Of what a friend's file would change here, what one says yes to (`changeKey`). */
  readonly chosen?: readonly string[];
}

/**
 * Joins a file to what is here. A friend's file changes nothing of one's own that one has not said yes to, field by field; the
 * friend's version is known from then on, and is not asked about again. A friend's settings, and what a friend calls oneself, stay out; one's own backup brings its
 * settings, as a change that the person has seen. What does not read is set aside if it is one's own.
 */
export async function joinFile(
  library: Library,
  bundle: Bundle,
  { owner, letsAheadIn, chosen = [] }: JoinHow,
): Promise<Result<Joined, KeepFault>> {
  const { desk, settings } = library;
  const ahead = new Set(letsAheadIn ? [] : fromTheFuture(bundle.records, desk.now()));
  const me = settings?.data.memberId;
  const isNewPartOfMine = (r: StoredRecord) =>
    // One's own part is one's own to take; a friend's word on one that there is, is asked about like any other.
    isOf("part", r) && r.data.memberId === me && r.author !== me && !partOf(library, r.data.projectId, r.data.memberId);
  const isOwn = (r: StoredRecord) =>
    r.kind === "settings" || (r.kind === "member" && r.id === me) || isNewPartOfMine(r);
  const isWelcome = (r: StoredRecord) =>
    !ahead.has(r) && (owner === "mine" ? r.kind !== "settings" || settings === null : !isOwn(r));
  const theirs = owner === "mine" && settings ? ofFile(bundle, "settings", "settings") : null;
  const records = bundle.records.filter(isWelcome);
  const here = await headsHere(desk);
  const said = owner === "friend" ? await chosenEdits(library, here, newsIn(here, records), new Set(chosen)) : [];
  const plan = owner === "mine" ? await takeShownPlan(desk, bundle.plan) : null;
  const done = await desk.at(theStore).join({
    records,
    edits: [
      ...said,
      ...(theirs && settings
        ? [{ kind: "settings" as const, id: "settings", data: theirs, baseRev: settings.rev }]
        : []),
    ],
    unread: owner === "mine" ? bundle.refused.map((r) => r.raw) : [],
  });
  if (done.ok) await plan?.keep();
  else plan?.forget();
  // One's own backup from before members had parts: taken over as it is when the app opens.
  if (done.ok && owner === "mine") await adoptParts(await libraryHere(desk));
  return done;
}

/** Joins a file that was looked into, by its handle; null when it was joined already. */
export async function joinLookedInto(
  library: Library,
  handle: string,
  how: JoinHow,
): Promise<{ readonly fileName: string; readonly done: Result<Joined, KeepFault> } | null> {
  const files = library.desk.at(lookedInto);
  const file = files.get(handle);
  if (!file) return null;
  const { fileName, bundle } = file;
  const done = await joinFile(library, bundle, how);
  if (done.ok) files.delete(handle);
  return { fileName, done };
}

/** Joins a sample group; with nothing here yet one looks around as one of it. */
export async function joinDemo(library: Library, id: SampleId = "gardens"): Promise<Result<Joined, KeepFault>> {
  let records: readonly StoredRecord[];
  try {
    records = await library.desk.supplies.sample(id);
  } catch {
    return err({ code: "notFetched" });
  }
  const bundle: Bundle = { scope: "everything", exportedAt: "", records, refused: [] };
  return joinFile(library, bundle, { owner: library.settings ? "friend" : "mine", letsAheadIn: true });
}
