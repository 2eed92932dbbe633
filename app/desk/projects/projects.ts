import { filtersOf } from "./reference";
import stableText from "fast-json-stable-stringify";
import type { CatalogEntry } from "~/core/catalog";
import { neighbourHold, opticsOf, type Optics } from "~/core/framing";
import {
  frameChange,
  newProject,
  partId,
  type FrameData,
  type GoalData,
  type PartData,
  type ProjectData,
} from "~/core/plan";
import type { KeepFault, EditOf } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import type { NightDate } from "~/core/time";
import { wrap360 } from "~/core/units";
import { slot, type Desk } from "~/desk/desk";
import { keep, remove, type Kept } from "~/desk/records/acts";
import type { Choice } from "~/desk/sky/choice";
import type { Library } from "~/desk/records/library";
import { ownerOf } from "~/desk/kit/kit";
import { partEdit, partOf, partToChange, type ChangedPart } from "~/desk/records/parts";
import { thePictures } from "./pictures";
import { crossOut } from "~/desk/records/pending";
import type { ProjectContext } from "./project";

/** Where to aim for a target of one's own that is shot beside a listed neighbour; the long side turned to it where that is needed. */
async function aimOf(library: Library, entry: CatalogEntry, optics: Optics) {
  const neighbourId = library.ownTargets.find((t) => t.id === entry.id)?.data.neighbourId;
  const neighbour = neighbourId ? await library.desk.workers.sky.entry(neighbourId) : null;
  if (!neighbour) return null;
  const hold = neighbourHold({ ...entry.at, sizeArcmin: entry.majorArcmin ?? 0 }, neighbour.at, {
    widthArcmin: optics.planeWidthArcmin,
    heightArcmin: optics.planeHeightArcmin,
  });
  const { raDeg, decDeg } = neighbour.at;
  // The frame's long side is its width, 90° from its up axis.
  const turned = wrap360(hold.positionAngleDeg + (optics.planeWidthArcmin >= optics.planeHeightArcmin ? 90 : 0)) % 180;
  return { raDeg, decDeg, positionAngleDeg: hold.hold === "turned" ? Math.round(turned * 10) / 10 : null };
}

/** A name that no project has yet: "Lion Nebula", then "Lion Nebula 2". */
function freshName(library: Library, name: string): string {
  const taken = new Set(library.projects.map((p) => p.data.name));
  let fresh = name;
  for (let n = 2; taken.has(fresh); n++) fresh = `${name} ${n}`;
  return fresh;
}

/** Starts a project from a target: its frame and its first hours. */
export async function startProject(
  library: Library,
  at: {
    readonly place: NonNullable<Choice["place"]>;
    readonly rig: NonNullable<Choice["rig"]>;
    readonly today: NightDate;
  },
  entry: CatalogEntry,
): Promise<Result<{ readonly projectId: string }, KeepFault>> {
  const filters = filtersOf(library, at.rig.data);
  const made = newProject(
    entry,
    { rig: at.rig.data, filters, place: at.place.data },
    at.today,
    await aimOf(library, entry, opticsOf(at.rig.data)),
  );
  const projectId = library.desk.newId("project");
  const frameId = library.desk.newId("frame");
  const name = freshName(library, made.project.name);
  const { memberId, edits } = ownerOf(library, { placeId: at.place.id, rigId: at.rig.id });
  const part: PartData = { projectId, memberId, placeId: at.place.id, rigId: at.rig.id };
  const done = await keep(library.desk, [
    ...edits,
    { kind: "project", id: projectId, data: { ...made.project, name, frameId, measuredBy: memberId }, baseRev: null },
    { kind: "part", id: partId(projectId, memberId), data: part, baseRev: null },
    { kind: "frame", id: frameId, data: { projectId, ...made.frame }, baseRev: null },
    { kind: "goal", id: library.desk.newId("goal"), data: { projectId, ...made.goal }, baseRev: null },
  ]);
  return done.ok ? ok({ projectId }) : done;
}

/** A version of something that a page worked on. */
interface Draft<D> {
  readonly id: string;
  readonly baseRev: string;
  readonly data: D;
}

/** Keeps what a project is called and how it is shot, and one's own part in it; what did not change is not written. */
export function saveProject(
  library: Library,
  { id, baseRev, data }: Draft<ProjectData>,
  part: ChangedPart | null,
): Promise<Result<Kept, KeepFault>> {
  const edits: EditOf[] = [];
  const before = library.projects.find((p) => p.id === id);
  const isSame = before?.rev === baseRev && stableText(before.data) === stableText(data);
  if (!isSame) edits.push({ kind: "project", id, data, baseRev });
  if (part) {
    const { memberId, edits: owner } = ownerOf(library, part.data);
    const own: PartData = { ...part.data, projectId: id, memberId };
    const stored = partOf(library, id, memberId);
    if (!stored || stableText(stored.data) !== stableText(own))
      edits.push(...owner, partEdit({ rev: part.rev, data: own }));
  }
  return keep(library.desk, edits);
}

/** Deletes a project with everything that is only its own: parts, frames, budget, log entries. Undo brings all of it back. */
export function deleteProject(library: Library, c: ProjectContext): Promise<Result<Kept, KeepFault>> {
  const isIts = ({ data }: { readonly data: { readonly projectId: string } }) => data.projectId === c.id;
  return remove(library.desk, [
    { kind: "project", ...c.project },
    ...library.parts.filter(isIts).map((p) => ({ kind: "part" as const, ...p })),
    ...library.frames.filter(isIts).map((f) => ({ kind: "frame" as const, ...f })),
    ...library.goals.filter(isIts).map((g) => ({ kind: "goal" as const, ...g })),
    ...library.contributions.filter(isIts).map((e) => ({ kind: "contribution" as const, ...e })),
  ]);
}

/** Frames being kept, one after the other, and what this tab has made of the version each save built upon. */
const savedFrames = slot((): { turn: Promise<unknown>; readonly next: Map<string, string> } => ({
  turn: Promise.resolve(),
  next: new Map(),
}));

/**
 * Keeps a frame, and crosses out what was written down of it. A page that is dragged on while its last save is under way still
 * names the version before that: its next one builds upon what that save made, not beside it.
 */
export function saveFrame(desk: Desk, { id, baseRev, data }: Draft<FrameData>): Promise<Result<Kept, KeepFault>> {
  const saved = desk.at(savedFrames);
  const keepNow = async () => {
    let base = baseRev;
    for (let next = saved.next.get(base); next !== undefined; next = saved.next.get(base)) base = next;
    const done = await keep(desk, [{ kind: "frame", id, data, baseRev: base }]);
    const rev = done.ok ? done.value.revs[id] : undefined;
    if (rev === undefined) return done;
    saved.next.set(base, rev);
    crossOut(desk, { kind: "frame", id, data, baseRev }, rev);
    return done;
  };
  const turn = saved.turn.then(keepNow);
  saved.turn = turn.catch(() => undefined);
  return turn;
}

/** The edit by which a project names its reference frame, which it need not as long as it has only one. */
const referenceEdits = ({ id, project, stock: { referenceId } }: ProjectContext): EditOf[] =>
  project.data.frameId === referenceId
    ? []
    : [{ kind: "project", id, data: { ...project.data, frameId: referenceId }, baseRev: project.rev }];

/** Adds a frame like the one shown. */
export const addFrame = (c: ProjectContext, { follows: _, ...data }: FrameData): Promise<Result<Kept, KeepFault>> =>
  keep(c.desk, [
    { kind: "frame", id: c.desk.newId("frame"), data: { ...data, title: freshTitle(c, data) }, baseRev: null },
    ...referenceEdits(c),
  ]);

/** Keeps a budget. */
export const saveGoal = (desk: Desk, { id, baseRev, data }: Draft<GoalData>): Promise<Result<Kept, KeepFault>> =>
  keep(desk, [{ kind: "goal", id, data, baseRev }]);

/** The edits by which somebody shoots a frame from now on: their own part, and the project's reference where they are alone in it. */
function shootEdits(library: Library, c: ProjectContext, frameId: string): EditOf[] {
  const own = partToChange(library, c.id);
  if (!own) return [];
  const { memberId, edits } = ownerOf(library, own.data);
  const isAlone = library.parts.every((p) => p.data.projectId !== c.id || p.data.memberId === memberId);
  return [
    ...edits,
    partEdit({ ...own, data: { ...own.data, memberId, frameId } }),
    ...(isAlone && c.stock.referenceId !== frameId
      ? [{ kind: "project" as const, id: c.id, data: { ...c.project.data, frameId }, baseRev: c.project.rev }]
      : []),
  ];
}

/** Says which of a project's frames one shoots. */
export const shootFrame = (library: Library, c: ProjectContext, frameId: string): Promise<Result<Kept, KeepFault>> =>
  keep(library.desk, shootEdits(library, c, frameId));

/** A frame with hours as it was changed, and whether those still count. */
export interface MovedFrame {
  readonly data: FrameData;
  readonly counts: boolean;
}

/**
 * Keeps a changed frame that has hours: the old one stays with them, and the new one is shot. Where the hours still count, it
 * follows the old one; a frame that has no hours of its own is changed as it is.
 */
export async function moveFrame(
  library: Library,
  c: ProjectContext,
  frameId: string,
  { data, counts }: MovedFrame,
): Promise<Result<Kept, KeepFault>> {
  const old = c.stock.frames.find((f) => f.id === frameId);
  if (!old) return keep(library.desk, []);
  const change = frameChange(
    old,
    data,
    c.stock,
    c.optics,
    c.contributions.map((x) => x.data),
  );
  const { follows: _, ...plain } = data;
  if (!counts) {
    // Entries that name no frame were taken with the reference frame, so that it has to stay what it is.
    const id = library.desk.newId("frame");
    const part = shootEdits(library, c, id).filter((e) => e.kind !== "project");
    return keep(library.desk, [
      { kind: "frame", id, data: { ...plain, title: freshTitle(c, data) }, baseRev: null },
      ...part,
      ...referenceEdits(c),
    ]);
  }
  if (!change.follows)
    return err({
      code: "hoursDoNotFit",
    });
  const next: FrameData = { ...plain, follows: change.follows };
  if (!change.hasOwnHours) return keep(library.desk, [{ kind: "frame", id: frameId, data: next, baseRev: "latest" }]);
  const id = library.desk.newId("frame");
  const isReference = c.stock.referenceId === frameId;
  const pictures = library.desk.at(thePictures);
  const picture = await pictures.of(frameId);
  if (picture) await pictures.keep(id, picture);
  return keep(library.desk, [
    { kind: "frame", id, data: next, baseRev: null },
    ...shootEdits(library, c, id).filter((e) => e.kind !== "project"),
    ...(isReference
      ? [{ kind: "project" as const, id: c.id, data: { ...c.project.data, frameId: id }, baseRev: c.project.rev }]
      : []),
  ]);
}

/** "Frame 2" for a frame kept beside another; the other's own title where it has one goes before. */
function freshTitle(c: ProjectContext, { title }: FrameData): string {
  const taken = new Set(c.stock.frames.map((f) => f.data.title ?? ""));
  const stem = title?.trim() ? title.trim() : "Frame";
  for (let n = c.stock.frames.length + 1; ; n++) if (!taken.has(`${stem} ${n}`)) return `${stem} ${n}`.slice(0, 120);
}
