import { memberTotals, newsIn, type MemberTotal, type StoredRecord } from "~/core/crew";
import { decodeBundle, encodeBundle, MAX_BUNDLE_BYTES, type Bundle, type BundleFault } from "~/core/formats";
import type { ContributionData } from "~/core/ledger";
import type { KeepFault } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import { demoRecords } from "~/storage/demo";
import { putBackPictures, takePictures } from "~/storage/pictures";
import { now } from "~/storage/session";
import { empty, join, openStore, refill, type Joined } from "~/storage/store";
import { changeSettings } from "./kit";
import type { Library } from "./library";

/** A file to hand over. */
export interface Written {
  readonly name: string;
  readonly text: string;
}

/** Every version of every record, for a backup or a friend. */
const allRecords = async (): Promise<StoredRecord[]> => [...(await openStore()).all()].flat();

/** Records of one project and of what it refers to: places, rigs, filters, members, a target of one's own. */
export function belonging(records: readonly StoredRecord[], projectId: string): StoredRecord[] {
  const field = (r: StoredRecord, name: string) => (r.data as Record<string, unknown>)[name];
  const own = records.filter((r) => r.id === projectId || field(r, "projectId") === projectId);
  const wanted = new Set(
    own
      .flatMap((r) => ["placeId", "rigId", "memberId", "targetId"].map((n) => field(r, n)))
      .concat(own.map((r) => r.author)),
  );
  const kit = records.filter((r) => wanted.has(r.id));
  const filters = new Set(kit.flatMap((r) => (field(r, "filterIds") as string[] | undefined) ?? []));
  return [...own, ...kit, ...records.filter((r) => filters.has(r.id))];
}

/** One project with all it needs, as a file for a friend. */
export async function writeProject(projectId: string, stem: string): Promise<Written> {
  const at = new Date(now()).toISOString();
  return {
    name: `${stem}-${at.slice(0, 10)}.zenithar.json`,
    text: encodeBundle(belonging(await allRecords(), projectId), "project", at),
  };
}

/** Everything as a file; the settings remember when. */
export async function writeEverything(library: Library): Promise<Written> {
  const at = new Date(now()).toISOString();
  const text = encodeBundle(await allRecords(), "everything", at);
  if (library.settings) await changeSettings(library, { lastBackupMs: now() });
  return { name: `zenithar-everything-${at.slice(0, 10)}.zenithar.json`, text };
}

/** Reads a file of records; one that is too large is refused unread. */
export async function readBundle(file: Blob): Promise<Result<Bundle, BundleFault>> {
  if (file.size > MAX_BUNDLE_BYTES) return err({ code: "bundleTooLarge", found: `${Math.round(file.size / 1e6)} MB` });
  return decodeBundle(await file.text());
}

/** What a friend's file would bring. */
export interface MergeView {
  readonly fileName: string;
  readonly bundle: Bundle;
  /** Versions not here yet. */
  readonly fresh: number;
  readonly news: readonly MemberTotal[];
  readonly hasThis: boolean;
}

/** Looks into a file without joining it. */
export async function lookInto(bundle: Bundle, fileName: string, projectId: string): Promise<MergeView> {
  const fresh = newsIn(await allRecords(), bundle.records);
  const news = fresh
    .filter((r) => r.kind === "contribution" && r.deletedAt === undefined)
    .map((r) => r.data as ContributionData);
  return {
    fileName,
    bundle,
    fresh: fresh.length,
    news: memberTotals(news),
    hasThis: bundle.records.some((r) => r.id === projectId),
  };
}

/** Joins a file to what is here. Someone else's settings say who they are; one's own stay. */
export const joinFile = (library: Library, records: readonly StoredRecord[]): Promise<Result<Joined, KeepFault>> =>
  join(records.filter((r) => r.kind !== "settings" || library.settings === null));

/** Joins the demo group. */
export const joinDemo = async (library: Library): Promise<Result<Joined, KeepFault>> =>
  joinFile(library, await demoRecords());

let cleared: {
  readonly records: ReadonlyMap<string, unknown>;
  readonly pictures: ReadonlyMap<string, unknown>;
} | null = null;

/** Whether this tab deleted everything at one stroke and has not put it back. */
export const canPutBack = (): boolean => cleared !== null;

/** Deletes everything here; this tab remembers it, so that it can be put back. */
export async function clearEverything(): Promise<Result<null, KeepFault>> {
  const records = await empty();
  if (!records.ok) return records;
  const pictures = await takePictures();
  if (records.value.size > 0 || pictures.size > 0) cleared = { records: records.value, pictures };
  return ok(null);
}

/** Puts back what `clearEverything` took. */
export async function putBackEverything(): Promise<Result<null, KeepFault>> {
  if (!cleared) return ok(null);
  const done = await refill(cleared.records);
  if (!done.ok) return done;
  await putBackPictures(cleared.pictures);
  cleared = null;
  return ok(null);
}
