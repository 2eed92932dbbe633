import type { CatalogEntry } from "~/core/catalog";
import { neighbourHold, opticsOf, type Optics } from "~/core/framing";
import { newProject, type FrameData, type GoalData, type ProjectData } from "~/core/plan";
import type { KeepFault } from "~/core/records";
import { ok, type Result } from "~/core/result";
import type { NightDate } from "~/core/time";
import { wrap360 } from "~/core/units";
import { newId } from "~/storage/session";
import { skyWorker } from "~/workers/sky";
import { keep, remove, type Kept } from "./acts";
import type { Choice } from "./choice";
import type { Library } from "./library";
import { crossOut } from "./pending";
import type { ProjectContext } from "./project";

/** Where to aim for a target of one's own that is shot beside a listed neighbour; the long side turned to it where that is needed. */
async function aimOf(library: Library, entry: CatalogEntry, optics: Optics) {
  const neighbourId = library.ownTargets.find((t) => t.id === entry.id)?.data.neighbourId;
  const neighbour = neighbourId ? await skyWorker().entry(neighbourId) : null;
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
  const filters = library.filters.filter((f) => at.rig.data.filterIds.includes(f.id));
  const made = newProject(
    entry,
    { rig: at.rig.data, rigId: at.rig.id, filters, place: at.place.data, placeId: at.place.id },
    at.today,
    await aimOf(library, entry, opticsOf(at.rig.data)),
  );
  const projectId = newId("project");
  const name = freshName(library, made.project.name);
  const done = await keep([
    { kind: "project", id: projectId, data: { ...made.project, name }, baseRev: null },
    { kind: "frame", id: newId("frame"), data: { projectId, ...made.frame }, baseRev: null },
    { kind: "goal", id: newId("goal"), data: { projectId, ...made.goal }, baseRev: null },
  ]);
  return done.ok ? ok({ projectId }) : done;
}

/** A version of something that a page worked on. */
interface Draft<D> {
  readonly id: string;
  readonly baseRev: string;
  readonly data: D;
}

/** Keeps what a project is called and shot with. */
export const saveProject = ({ id, baseRev, data }: Draft<ProjectData>): Promise<Result<Kept, KeepFault>> =>
  keep([{ kind: "project", id, data, baseRev }]);

/** Deletes a project with everything that is only its own: frames, budget, log entries. Undo brings all of it back. */
export function deleteProject(library: Library, c: ProjectContext): Promise<Result<Kept, KeepFault>> {
  const isIts = ({ data }: { readonly data: { readonly projectId: string } }) => data.projectId === c.id;
  return remove([
    { kind: "project", ...c.project },
    ...library.frames.filter(isIts).map((f) => ({ kind: "frame" as const, ...f })),
    ...library.goals.filter(isIts).map((g) => ({ kind: "goal" as const, ...g })),
    ...library.contributions.filter(isIts).map((e) => ({ kind: "contribution" as const, ...e })),
  ]);
}

/** Keeps a frame, and crosses out what was written down of it. */
export async function saveFrame({ id, baseRev, data }: Draft<FrameData>): Promise<Result<Kept, KeepFault>> {
  const edit = { kind: "frame", id, data, baseRev } as const;
  const done = await keep([edit]);
  const rev = done.ok ? done.value.revs[id] : undefined;
  if (rev !== undefined) crossOut(edit, rev);
  return done;
}

/** Adds a frame like the one shown. */
export const addFrame = (data: FrameData): Promise<Result<Kept, KeepFault>> =>
  keep([{ kind: "frame", id: newId("frame"), data, baseRev: null }]);

/** Keeps a budget. */
export const saveGoal = ({ id, baseRev, data }: Draft<GoalData>): Promise<Result<Kept, KeepFault>> =>
  keep([{ kind: "goal", id, data, baseRev }]);
