import { editRecord, joinHeads, winnerOf, type Heads, type Edit, type StoredRecord } from "~/core/crew";
import { decodeRecord } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import { openDrawer, type Drawer, type StorageFault } from "./driver";
import { libraryOf, type Library, type Quarantined } from "./library";
import { putBackPictures, takePictures } from "./pictures";
import { announce } from "./tabs";
import { demoRecords, markSeeded, wasSeeded } from "./demo";
import { databaseName, freshNodeId, isDemo, nodeId, now } from "./session";

/** What a key holds: a version for migrations, and all heads of one record. */
interface Envelope {
  readonly v: 1;
  readonly heads: readonly unknown[];
}

/** What a change did: the versions before it, for Undo, and whether another tab or person had changed the same record. */
export interface Saved {
  readonly before: readonly { readonly id: string; readonly record: StoredRecord | null }[];
  readonly collided: readonly string[];
  /** The new revision of each record. */
  readonly revs: Readonly<Record<string, string>>;
}

let opened: Promise<Drawer> | null = null;
const drawer = (): Promise<Drawer> => (opened ??= openAndSeed());

/** Opens the store; the demo's own database is filled once. */
async function openAndSeed(): Promise<Drawer> {
  const d = await openDrawer(databaseName(), "records");
  if (!isDemo() || (wasSeeded() && d.isLasting)) return d;
  for (const record of await demoRecords()) await write(d, record.id, [record]);
  markSeeded();
  return d;
}

/** Decodes one stored value: heads that read well, and those that do not. */
function decode(key: string, value: unknown): { readonly heads: StoredRecord[]; readonly bad: Quarantined[] } {
  const envelope = value as Partial<Envelope> | null;
  if (typeof envelope !== "object" || envelope === null || !Array.isArray(envelope.heads))
    return { heads: [], bad: [{ key, reason: "not a stored record", raw: value }] };
  if (envelope.v !== 1)
    return { heads: [], bad: [{ key, reason: `stored by a newer version (${String(envelope.v)})`, raw: value }] };
  const heads: StoredRecord[] = [];
  const bad: Quarantined[] = [];
  for (const raw of envelope.heads) {
    const record = decodeRecord(raw);
    if (record.ok) heads.push(record.value);
    else bad.push({ key, reason: `${record.error.path}: ${record.error.message}`, raw });
  }
  return { heads, bad };
}

async function readStore(): Promise<{
  readonly store: Map<string, Heads>;
  readonly quarantine: Quarantined[];
  readonly isLasting: boolean;
}> {
  const d = await drawer();
  const store = new Map<string, Heads>();
  const quarantine: Quarantined[] = [];
  for (const [key, value] of await d.readAll()) {
    const { heads, bad } = decode(key, value);
    quarantine.push(...bad);
    if (heads.length > 0) store.set(key, joinHeads(heads, []) as unknown as Heads);
  }
  return { store, quarantine, isLasting: d.isLasting };
}

/** Reads everything a person owns. */
export async function loadLibrary(): Promise<Library> {
  const { store, quarantine, isLasting } = await readStore();
  return libraryOf(store, quarantine, isLasting);
}

/** One writer at a time over all tabs, so that reading a record and writing its next version is one step. */
const exclusively = <T>(work: () => Promise<T>): Promise<T> =>
  navigator.locks ? navigator.locks.request(`${databaseName()}.write`, work) : work();

/** Who is writing: the member of the settings, stored or among the edits; before there are any, this browser. */
async function memberOf(d: Drawer, edits: readonly Edit[]): Promise<string> {
  const stored =
    decode("settings", await d.read("settings")).heads[0]?.data ?? edits.find((e) => e.kind === "settings")?.data;
  return (stored as { memberId?: string } | undefined)?.memberId ?? `member-${nodeId()}`;
}

async function write(d: Drawer, id: string, incoming: readonly StoredRecord[]): Promise<Result<null, StorageFault>> {
  const stored = await d.read(id);
  const { heads, bad } = stored === null ? { heads: [], bad: [] } : decode(id, stored);
  // What did not decode stays beside the rest: quarantine loses nothing.
  const envelope: Envelope = { v: 1, heads: [...joinHeads(heads, incoming), ...bad.map((b) => b.raw)] };
  return d.write(id, envelope);
}

function nextVersion(
  edit: Edit,
  heads: Heads | null,
  author: string,
): { readonly record: StoredRecord; readonly collided: boolean } {
  const winner = heads ? winnerOf(heads) : null;
  const isStale = winner !== null && edit.baseRev !== "latest" && winner.rev !== edit.baseRev;
  const shown = edit.baseRev === null ? null : (heads?.find((h) => h.rev === edit.baseRev) ?? null);
  const by = { node: isStale ? freshNodeId() : nodeId(), author, nowMs: now(), heard: heads?.map((h) => h.rev) ?? [] };
  const fields = { id: edit.id, kind: edit.kind, data: edit.data, ...(edit.isDeleted ? { deletedAt: now() } : {}) };
  return {
    record: editRecord(
      fields,
      by,
      isStale ? shown : winner,
      (edit.settlesCopies || edit.baseRev === "latest") && heads ? heads.slice(1) : [],
    ),
    collided: isStale,
  };
}

/** Stores changes. A record changed elsewhere since the page showed it keeps both versions. Stops at the first that does not fit. */
export const saveAll = (edits: readonly Edit[]): Promise<Result<Saved, StorageFault>> =>
  exclusively(async () => {
    const d = await drawer();
    const author = await memberOf(d, edits);
    const before: { id: string; record: StoredRecord | null }[] = [];
    const collided: string[] = [];
    const revs: Record<string, string> = {};
    for (const edit of edits) {
      const stored = await d.read(edit.id);
      const heads = stored === null ? [] : decode(edit.id, stored).heads;
      const sorted = heads.length ? (joinHeads(heads, []) as unknown as Heads) : null;
      const next = nextVersion(edit, sorted, author);
      const done = await write(d, edit.id, [next.record]);
      if (!done.ok) return done;
      before.push({ id: edit.id, record: sorted?.[0] ?? null });
      revs[edit.id] = next.record.rev;
      if (next.collided) collided.push(edit.id);
    }
    announce();
    return ok({ before, collided, revs });
  });

/** Joins records from a file into the store; nothing is overwritten that the file does not build upon. */
export const mergeIn = (
  records: readonly StoredRecord[],
): Promise<Result<{ readonly added: number; readonly changed: number; readonly known: number }, StorageFault>> =>
  exclusively(async () => {
    const d = await drawer();
    const report = { added: 0, changed: 0, known: 0 };
    const byId = groupById(records);
    for (const [id, incoming] of byId) {
      const stored = await d.read(id);
      const heads = stored === null ? [] : joinHeads(decode(id, stored).heads, []);
      const joined = joinHeads(heads, incoming);
      if (stored === null) report.added++;
      else if (joined.map((h) => h.rev).join() === heads.map((h) => h.rev).join()) {
        report.known++;
        continue;
      } else report.changed++;
      const done = await write(d, id, incoming);
      if (!done.ok) return done;
    }
    announce();
    return ok(report);
  });

/** Every version of every record, for a backup or a friend. */
export async function allRecords(): Promise<StoredRecord[]> {
  return [...(await readStore()).store.values()].flat();
}

let lastCleared: ReadonlyMap<string, unknown> | null = null;
let lastPictures: ReadonlyMap<string, unknown> = new Map();

/** What this tab deleted at one stroke and has not put back. */
export const clearedHere = (): ReadonlyMap<string, unknown> | null => lastCleared;

/** Empties the store and hands back what was in it, raw; the tab remembers it, so that it can be put back. */
export const clearStore = (): Promise<ReadonlyMap<string, unknown>> =>
  exclusively(async () => {
    const d = await drawer();
    const all = await d.readAll();
    for (const key of all.keys()) await d.drop(key);
    lastCleared = all.size > 0 ? all : lastCleared;
    const pictures = await takePictures();
    lastPictures = pictures.size > 0 ? pictures : lastPictures;
    announce();
    return all;
  });

/** Puts back what `clearStore` took. */
export const refillStore = (all: ReadonlyMap<string, unknown>): Promise<Result<null, StorageFault>> =>
  exclusively(async () => {
    const d = await drawer();
    for (const [key, value] of all) {
      const done = await d.write(key, value);
      if (!done.ok) return err(done.error);
    }
    lastCleared = null;
    await putBackPictures(lastPictures);
    lastPictures = new Map();
    announce();
    return ok(null);
  });

function groupById(records: readonly StoredRecord[]): Map<string, StoredRecord[]> {
  const groups = new Map<string, StoredRecord[]>();
  for (const r of records) groups.set(r.id, [...(groups.get(r.id) ?? []), r]);
  return groups;
}
