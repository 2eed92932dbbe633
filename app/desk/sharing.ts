import {
  fromTheFuture,
  instantOfRev,
  joinHeads,
  memberTotals,
  newsIn,
  recordKey,
  type Edit,
  type Heads,
  type MemberTotal,
  type RecordKind,
  type StoredRecord,
} from "~/core/crew";
import { encodeBundle, MAX_BUNDLE_BYTES, type Bundle, type BundleFault } from "~/core/formats";
import type { ContributionData } from "~/core/ledger";
import { changedFields, withChanges, type FieldChange, type KeepFault, type Settings } from "~/core/records";
import type { PartData } from "~/core/plan";
import { err, ok, type Result } from "~/core/result";
import { demoRecords, type SampleId } from "~/storage/demo";

export type { SampleId } from "~/storage/demo";
import { dropAllDrafts } from "~/storage/drafts";
import { putBackPictures, takePictures } from "~/storage/pictures";
import { now } from "~/storage/session";
import { act, empty, join, openStore, refill, type Joined, type Store } from "~/storage/store";
import { readBundleInWorker } from "~/workers/files";
import { changeSettings } from "./kit";
import type { Library } from "./library";
import { libraryHere } from "./open-library";
import { meOf, partOf, partsToAdopt } from "./parts";
import { contextsOf } from "./project";
import { planForBackup, takeShownPlan } from "./season";

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
  const own = records.filter(
    // Which nights somebody keeps for it is nobody else's business.
    (r) => (r.kind === "project" && r.id === projectId) || (r.kind !== "lock" && field(r, "projectId") === projectId),
  );
  const wanted = new Set(own.map((r) => `member/${r.author}`));
  for (const r of own)
    for (const kind of ["place", "rig", "member", "target"] as const) {
      const id = field(r, `${kind}Id`);
      if (typeof id === "string") wanted.add(`${kind}/${id}`);
    }
  const kit = records.filter((r) => wanted.has(recordKey(r)));
  const filters = new Set(kit.flatMap((r) => (field(r, "filterIds") as string[] | undefined) ?? []));
  return [...own, ...kit, ...records.filter((r) => r.kind === "filter" && filters.has(r.id))];
}

/** One project with all it needs, as a file for a friend. */
export async function writeProject(projectId: string, stem: string): Promise<Written> {
  const at = new Date(now()).toISOString();
  return {
    name: `${stem}-${at.slice(0, 10)}.zenithar.json`,
    text: encodeBundle(belonging(await allRecords(), projectId), "project", at),
  };
}

/** A project to invite somebody to: its frame, goals and kit without the hours, small, under a name that says what it is. */
export async function writeInvitation(projectId: string, stem: string): Promise<Written> {
  const at = new Date(now()).toISOString();
  const asked = belonging(await allRecords(), projectId).filter((r) => !["contribution", "handOver"].includes(r.kind));
  return { name: `join-${stem}.zenithar.json`, text: encodeBundle(asked, "project", at) };
}

/** Everything as a file, what does not read included; the settings remember when. */
export async function writeEverything(library: Library): Promise<Written> {
  const at = new Date(now()).toISOString();
  const unread = (await openStore()).unread().map((u) => u.raw);
  const text = encodeBundle(await allRecords(), "everything", at, unread, await planForBackup());
  if (library.settings) await changeSettings(library, { lastBackupMs: now() });
  return { name: `zenithar-everything-${at.slice(0, 10)}.zenithar.json`, text };
}

/** Reads a file of records off the main thread; one that is too large is refused unread. */
export async function readBundle(file: Blob, signal: AbortSignal): Promise<Result<Bundle, BundleFault>> {
  if (file.size > MAX_BUNDLE_BYTES) return err({ code: "bundleTooLarge", found: `${Math.round(file.size / 1e6)} MB` });
  return readBundleInWorker(file, signal);
}

/** A record of a file as it is called on a page. */
export interface NamedRecord {
  readonly kind: RecordKind;
  readonly name: string;
  /** When it says that it was written. */
  readonly atMs: number;
}

/** One thing about oneself that a backup would change, in words. */
export interface OwnChange {
  readonly what: string;
  readonly from: string;
  readonly to: string;
}

/** Something here that a friend's file would change, field by field. */
export interface RecordChange {
  readonly kind: RecordKind;
  readonly id: string;
  readonly name: string;
  /** One's own, or used for oneself: it stays as it is unless one says yes. */
  readonly isMine: boolean;
  /** The friend deleted it. */
  readonly isDeleted: boolean;
  readonly fields: readonly FieldChange[];
}

/** The name of one thing to say yes to: a field of a record, or its deletion. */
export const changeKey = (
  { kind, id }: Pick<RecordChange, "kind" | "id">,
  field: Pick<FieldChange, "path"> | null,
): string => JSON.stringify([kind, id, ...(field?.path ?? [])]);

/** What a file would bring, before anything of it is kept. */
export interface FileView {
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

/** What a record is called on a page. */
export function nameOf(kind: RecordKind, { id, data }: { readonly id: string; readonly data: unknown }): string {
  const { name, title, night } = data as Readonly<Record<string, unknown>>;
  const said = [name, title, night].find((text) => typeof text === "string" && text !== "");
  return typeof said === "string" ? said : `${kind} ${id}`;
}

/** The version of a record that counts in a file; null when it is not in it. */
function ofFile<D>(bundle: Bundle, kind: RecordKind, id: string): D | null {
  const versions = bundle.records.filter((r) => r.kind === kind && r.id === id);
  const [winner] = joinHeads(versions, []);
  return winner && winner.deletedAt === undefined ? (winner.data as D) : null;
}

/** What a file's settings, and its word on one's own name, would change. */
function ownChanges(library: Library, bundle: Bundle): OwnChange[] {
  const theirs = ofFile<Settings>(bundle, "settings", "settings");
  if (!theirs) return [];
  const mine = library.settings?.data ?? null;
  const called = (kind: "place" | "rig" | "member", id: string) =>
    (
      ofFile<{ name: string }>(bundle, kind, id) ??
      library[`${kind}s`].find((e) => e.id === id)?.data ?? { name: id || "none" }
    ).name;
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
  const here = [library.places, library.rigs, library.filters, library.members].flatMap((list) =>
    (list as readonly { readonly id: string; readonly data: { readonly name: string } }[]).map(
      (e) => [e.id, e.data.name] as const,
    ),
  );
  return Object.fromEntries([...named, ...here]);
}

/** Whether a thing here is another member's alone: their entries, their part, their kit that one does not use. */
function isTheirs(library: Library, { kind, id, author, data }: StoredRecord): boolean {
  const me = meOf(library);
  const { memberId } = data as { readonly memberId?: string };
  if (kind === "member") return id !== me;
  if (memberId !== undefined) return memberId !== me;
  if (kind === "place" || kind === "rig" || kind === "filter") return author !== me && !kitInUse(library).has(id);
  return false;
}

/** Ids of the places, rigs and filters one uses: chosen in the settings, in one's parts, in one's log. */
function kitInUse(library: Library): ReadonlySet<string> {
  const me = meOf(library);
  const mine = [
    ...library.parts.filter((p) => p.data.memberId === me).map((p) => p.data),
    ...(library.log.byMember.get(me ?? "") ?? []).map((c) => c.data),
    ...(library.settings ? [library.settings.data] : []),
  ];
  const used = new Set(mine.flatMap((x) => [x.placeId, x.rigId]));
  for (const rig of library.rigs) if (used.has(rig.id)) rig.data.filterIds.forEach((id) => used.add(id));
  return used;
}

/** What of the news would change something here that is not its writer's alone. */
function changesIn(library: Library, here: ReadonlyMap<string, Heads>, fresh: readonly StoredRecord[]): RecordChange[] {
  const me = meOf(library);
  const myFrames = new Set(contextsOf(library).flatMap((c) => (c.part.isMine ? [c.frame.id] : [])));
  const byKey = new Map<string, StoredRecord[]>();
  for (const r of fresh) byKey.set(recordKey(r), [...(byKey.get(recordKey(r)) ?? []), r]);
  return [...byKey].flatMap(([key, versions]): RecordChange[] => {
    const mine = here.get(key)?.[0];
    const [theirs] = joinHeads(versions, []);
    if (!mine || !theirs || mine.deletedAt !== undefined || mine.kind === "settings" || isTheirs(library, mine))
      return [];
    if (mine.kind === "member") return [];
    const isDeleted = theirs.deletedAt !== undefined;
    const fields = isDeleted ? [] : changedFields(mine.kind, mine.data, theirs.data);
    if (!isDeleted && fields.length === 0) return [];
    const isShared =
      ["project", "goal", "target"].includes(mine.kind) || (mine.kind === "frame" && !myFrames.has(mine.id));
    return [
      {
        kind: mine.kind,
        id: mine.id,
        name: nameOfThing(library, mine),
        isMine: !isShared || (mine.kind === "target" && mine.author === me),
        isDeleted,
        fields,
      },
    ];
  });
}

/** As `nameOf`, with the project's name for what has none of its own. */
function nameOfThing(library: Library, record: StoredRecord): string {
  const { projectId, night, panel } = record.data as {
    readonly projectId?: string;
    readonly night?: string;
    readonly panel?: string;
  };
  const project = library.projects.find((p) => p.id === projectId)?.data.name;
  if (record.kind === "contribution") return [project, panel, night].filter((x) => x !== undefined).join(", ");
  const { title } = record.data as { readonly title?: string };
  return project === undefined ? nameOf(record.kind, record) : [project, ...(title ? [title] : [])].join(", ");
}

/** The edits that keep of a file's changes what was said yes to, and settle the matter: neither side comes up again. */
function chosenEdits(
  library: Library,
  here: ReadonlyMap<string, Heads>,
  fresh: readonly StoredRecord[],
  chosen: ReadonlySet<string>,
): Edit[] {
  return changesIn(library, here, fresh).flatMap((change): Edit[] => {
    const heads = here.get(recordKey(change))!;
    const theirs = fresh.filter((r) => recordKey(r) === recordKey(change));
    const isGone = change.isDeleted && chosen.has(changeKey(change, null));
    const yes = change.fields.filter((f) => chosen.has(changeKey(change, f)));
    const { kind, id } = change;
    const settles = [...heads, ...theirs].map((r) => r.rev);
    const data = withChanges(heads[0].data, yes);
    return [{ kind, id, data, baseRev: "latest", settles, ...(isGone ? { isDeleted: true } : {}) }];
  });
}

/** Looks into a file without joining it. */
export async function lookInto(library: Library, bundle: Bundle, fileName: string): Promise<FileView> {
  const view = await viewOf(library, bundle, fileName);
  lookedInto = view;
  return view;
}

/** The file that was looked into last, so that it need not travel once more when it is joined. */
let lookedInto: FileView | null = null;

async function viewOf(library: Library, bundle: Bundle, fileName: string): Promise<FileView> {
  const store = await openStore();
  const here = headsOf(store);
  const fresh = newsIn(here, bundle.records);
  const news = fresh
    .filter((r) => r.kind === "contribution" && r.deletedAt === undefined)
    .map((r) => r.data as ContributionData);
  const theirs = ofFile<Settings>(bundle, "settings", "settings");
  const isMine = theirs !== null && bundle.scope === "everything" && [null, theirs.memberId].includes(meOf(library));
  return {
    fileName,
    bundle,
    fresh: fresh.filter((r) => r.kind !== "settings").length,
    news: memberTotals(news),
    members: Object.fromEntries(
      bundle.records.filter((r) => r.kind === "member").map((r) => [r.id, nameOf(r.kind, r)]),
    ),
    ahead: fromTheFuture(fresh, now()).map((r) => ({
      kind: r.kind,
      name: nameOf(r.kind, r),
      atMs: instantOfRev(r.rev),
    })),
    own: ownChanges(library, bundle),
    changes: changesIn(library, here, fresh),
    names: namesIn(library, bundle),
    owner: isMine ? "mine" : "friend",
  };
}

/** How a file is joined. */
export interface JoinHow {
  readonly owner: FileOwner;
  readonly letsAheadIn: boolean;
  /** Of what a friend's file would change here, what one says yes to (`changeKey`). */
  readonly chosen?: readonly string[];
}

const headsOf = (store: Store): ReadonlyMap<string, Heads> =>
  new Map([...store.all()].map((heads) => [recordKey(heads[0]), heads]));

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
  const { settings } = library;
  const store = await openStore();
  const ahead = new Set(letsAheadIn ? [] : fromTheFuture(bundle.records, now()));
  const me = settings?.data.memberId;
  const isNewPartOfMine = ({ author, data }: StoredRecord) => {
    const { projectId, memberId } = data as PartData;
    return memberId === me && author !== me && !partOf(library, projectId, memberId);
  };
  const isOwn = (r: StoredRecord) =>
    r.kind === "settings" ||
    (r.kind === "member" && r.id === me) ||
    // One's own part is one's own to take; a friend's word on one that there is, is asked about like any other.
    (r.kind === "part" && isNewPartOfMine(r));
  const isWelcome = (r: StoredRecord) =>
    !ahead.has(r) && (owner === "mine" ? r.kind !== "settings" || settings === null : !isOwn(r));
  const theirs = owner === "mine" && settings ? ofFile<Settings>(bundle, "settings", "settings") : null;
  const records = bundle.records.filter(isWelcome);
  const here = headsOf(store);
  const said = owner === "friend" ? chosenEdits(library, here, newsIn(here, records), new Set(chosen)) : [];
  const plan = owner === "mine" ? await takeShownPlan(bundle.plan) : null;
  const done = await join({
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
  const adopted = done.ok && owner === "mine" ? partsToAdopt(await libraryHere()) : [];
  if (adopted.length > 0) await act(adopted);
  return done;
}

/** Joins the file that was looked into last; null when there is none. */
export async function joinLookedInto(
  library: Library,
  how: JoinHow,
): Promise<{ readonly fileName: string; readonly done: Result<Joined, KeepFault> } | null> {
  if (!lookedInto) return null;
  const { fileName, bundle } = lookedInto;
  const done = await joinFile(library, bundle, how);
  if (done.ok) lookedInto = null;
  return { fileName, done };
}

/** Joins a sample group; with nothing here yet one looks around as one of it. */
export async function joinDemo(library: Library, id: SampleId = "gardens"): Promise<Result<Joined, KeepFault>> {
  let records: readonly StoredRecord[];
  try {
    records = await demoRecords(id);
  } catch {
    return err({ code: "notFetched" });
  }
  const bundle: Bundle = { scope: "everything", exportedAt: "", records, refused: [] };
  return joinFile(library, bundle, { owner: library.settings ? "friend" : "mine", letsAheadIn: true });
}

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
  dropAllDrafts();
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
