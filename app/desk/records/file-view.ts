import {
  fromTheFuture,
  instantOfRev,
  joinHeads,
  memberTotals,
  newsIn,
  recordKey,
  type Heads,
  type MemberTotal,
  type RecordKind,
  type StoredRecord,
} from "~/core/crew";
import { MAX_BUNDLE_BYTES, type Bundle, type BundleFault } from "~/core/formats";
import { isOf, type DataOf } from "~/core/records";
import { err, type Result } from "~/core/result";
import { slot, type Desk } from "~/desk/desk";
import { inTurns } from "~/desk/turns";
import { theStore } from "./kept";
import type { Library } from "./library";
import { nameOf, type NamedRecord, type RecordChange } from "./named-records";
import { meOf } from "./parts";

const MOST_LOOKED_INTO = 2; // one a page; they may be large

/** Files that were looked into and not joined yet, by their handles; the latest. */
export const lookedInto = slot(() => new Map<string, { readonly fileName: string; readonly bundle: Bundle }>());

/** What is here, by key. */
export const headsHere = async (desk: Desk): Promise<ReadonlyMap<string, Heads>> =>
  new Map([...(await desk.at(theStore).open()).all()].map((heads) => [recordKey(heads[0]), heads]));

/** Reads a file of records off the main thread; one that is too large is refused unread. */
export async function readBundle(desk: Desk, file: Blob, signal: AbortSignal): Promise<Result<Bundle, BundleFault>> {
  if (file.size > MAX_BUNDLE_BYTES) return err({ code: "bundleTooLarge", found: `${Math.round(file.size / 1e6)} MB` });
  return desk.workers.files.bundle(file, signal);
}

/** One thing about oneself that a backup would change, in words. */
export interface OwnChange {
  readonly what: string;
  readonly from: string;
  readonly to: string;
}

/** What a file would bring, before anything of it is kept. */
export interface FileView {
  /** By which it is joined. */
  readonly handle: string;
  readonly fileName: string;
  readonly bundle: Bundle;
  /** Versions not here yet. */
  readonly fresh: number;
  readonly news: readonly MemberTotal[];
  /** Names of the members in the file, by id. */
  readonly members: Readonly<Record<string, string>>;
  /** Versions that say they were written more than a day from now: they stay out until somebody lets them in. */
  readonly ahead: readonly NamedRecord[];
  /** What changes about oneself if it is one's own backup; empty = nothing. A friend's file never changes any of it. */
  readonly own: readonly OwnChange[];
  /** What a friend's file would change of what is here and is not the friend's alone. */
  readonly changes: readonly RecordChange[];
  /** Names of places, rigs, filters, members and frames, here and in the file, by id. */
  readonly names: Readonly<Record<string, string>>;
  /** Whose it probably is. */
  readonly owner: FileOwner;
}

/** A friend's file brings what the friend made. One's own backup also says who one is and what is chosen. */
export type FileOwner = "mine" | "friend";

/** The version of a record that counts in a file; null when it is not in it. */
export function ofFile<K extends RecordKind>(bundle: Bundle, kind: K, id: string): DataOf[K] | null {
  const versions = bundle.records.filter((r) => r.kind === kind && r.id === id);
  const [winner] = joinHeads(versions, []);
  return winner && isOf(kind, winner) && winner.deletedAt === undefined ? winner.data : null;
}

/** What a file's settings, and its word on one's own name, would change. */
function ownChanges(library: Library, bundle: Bundle): OwnChange[] {
  const theirs = ofFile(bundle, "settings", "settings");
  if (!theirs) return [];
  const mine = library.settings?.data ?? null;
  const called = (kind: "place" | "rig" | "member", id: string) =>
    (ofFile(bundle, kind, id) ?? library[`${kind}s`].find((e) => e.id === id)?.data ?? { name: id || "none" }).name;
  const mineCalled = (kind: "place" | "rig" | "member", id: string) =>
    library[`${kind}s`].find((e) => e.id === id)?.data.name ?? (id || "none");
  const lines: OwnChange[] = [
    {
      what: "You are",
      from: mine ? mineCalled("member", mine.memberId) : "nobody yet",
      to: called("member", theirs.memberId),
    },
    {
      what: "Usual place",
      from: mine ? mineCalled("place", mine.placeId) : "none",
      to: called("place", theirs.placeId),
    },
    { what: "Usual rig", from: mine ? mineCalled("rig", mine.rigId) : "none", to: called("rig", theirs.rigId) },
    { what: "Hours wished for", from: mine ? `${mine.wishHours} h` : "none", to: `${theirs.wishHours} h` },
    { what: "Last backup", from: dayOf(mine?.lastBackupMs ?? null), to: dayOf(theirs.lastBackupMs) },
  ];
  return lines.filter((line) => line.from !== line.to);
}

const dayOf = (ms: number | null): string => (ms === null ? "never" : new Date(ms).toISOString().slice(0, 10));

/** Names of what records refer to by id; what is here goes before what the file calls it. */
function namesIn(library: Library, bundle: Bundle): Record<string, string> {
  const kinds: readonly RecordKind[] = ["place", "rig", "filter", "member", "frame"];
  const named = bundle.records.filter((r) => kinds.includes(r.kind)).map((r) => [r.id, nameOf(r.kind, r)] as const);
  const here = [...library.places, ...library.rigs, ...library.filters, ...library.members].map(
    (e) => [e.id, e.data.name] as const,
  );
  return Object.fromEntries([...named, ...here]);
}

/** So many records are compared at a stretch: some milliseconds. */
const AT_ONCE = 1000;

/**
 * Looks into a file without joining it; it is joined by its handle, so that it need not travel once more. The page answers meanwhile,
 * and whoever does not want to know any more stops it by `signal`.
 */
export async function lookInto(
  library: Library,
  bundle: Bundle,
  fileName: string,
  signal?: AbortSignal,
): Promise<FileView> {
  const turn = inTurns();
  const between = async () => {
    signal?.throwIfAborted();
    await turn();
  };
  const here = await headsHere(library.desk);
  const fresh: StoredRecord[] = [];
  for (let i = 0; i < bundle.records.length; i += AT_ONCE) {
    fresh.push(...newsIn(here, bundle.records.slice(i, i + AT_ONCE)));
    await between();
  }
  const news = fresh.filter((r) => isOf("contribution", r)).flatMap((r) => (r.deletedAt === undefined ? [r.data] : []));
  const theirs = ofFile(bundle, "settings", "settings");
  const isMine = theirs !== null && bundle.scope === "everything" && [null, theirs.memberId].includes(meOf(library));
  const view: FileView = {
    handle: library.desk.ids.fresh(),
    fileName,
    bundle,
    fresh: fresh.filter((r) => r.kind !== "settings").length,
    news: memberTotals(news),
    members: Object.fromEntries(
      bundle.records.filter((r) => r.kind === "member").map((r) => [r.id, nameOf(r.kind, r)]),
    ),
    ahead: fromTheFuture(fresh, library.desk.now()).map((r) => ({
      kind: r.kind,
      name: nameOf(r.kind, r),
      atMs: instantOfRev(r.rev),
    })),
    own: ownChanges(library, bundle),
    changes: await (await import("./file-changes")).changesIn(library, here, fresh, between),
    names: namesIn(library, bundle),
    owner: isMine ? "mine" : "friend",
  };
  const files = library.desk.at(lookedInto);
  files.set(view.handle, { fileName, bundle });
  const [oldest] = files.keys();
  if (files.size > MOST_LOOKED_INTO && oldest !== undefined) files.delete(oldest);
  return view;
}
