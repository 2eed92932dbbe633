import type { EditOf } from "~/core/records";
import type { ContributionData } from "~/core/ledger";
import { partId, type PartData, type ProjectData } from "~/core/plan";
import { theStore } from "./kept";
import type { Entity, Library } from "./library";

/** Who the owner of this library is; null before there is one. */
export const meOf = (library: Library): string | null => library.settings?.data.memberId ?? null;

/** A member's stored part in a project; null when they have none. */
export const partOf = (library: Library, projectId: string, memberId: string | null): Entity<PartData> | null =>
  library.parts.find((p) => p.data.projectId === projectId && p.data.memberId === memberId) ?? null;

/** The part by which a project is shown. */
export interface ShownPart {
  readonly data: PartData;
  /** As it is stored; null when it was never said, only begun with. */
  readonly stored: Entity<PartData> | null;
  /** Whether it is the part of whose library this is: only then anything is planned for. */
  readonly isMine: boolean;
}

/** One's own part in a project; without one that of whoever wrote the project, or of another member, to look at; null without any. */
export function shownPart(library: Library, project: Entity<ProjectData>): ShownPart | null {
  const mine = partOf(library, project.id, meOf(library));
  if (mine) return { data: mine.data, stored: mine, isMine: true };
  const others = library.parts.filter((p) => p.data.projectId === project.id);
  const reads = (p: Entity<PartData>) =>
    library.places.some((x) => x.id === p.data.placeId) && library.rigs.some((x) => x.id === p.data.rigId);
  const theirs = partOf(library, project.id, project.author);
  const stored = (theirs && reads(theirs) ? theirs : null) ?? others.find(reads) ?? others[0] ?? null;
  if (stored) return { data: stored.data, stored, isMine: false };
  const { begun } = project.data;
  return begun
    ? { data: { projectId: project.id, memberId: project.author, ...begun }, stored: null, isMine: false }
    : null;
}

/** A member of a project: where and with what, as they said or, where they have not, as their latest log entry says. */
export interface Participant {
  readonly memberId: string;
  readonly name: string;
  readonly placeName: string;
  readonly rigName: string;
  readonly channels: PartData["channels"] | null;
  /** False when it is only known from the log. */
  readonly isSaid: boolean;
}

/** Everybody with a part in a project or hours in its log, by name. */
export function participantsOf(library: Library, projectId: string): Participant[] {
  const found = new Map<string, Omit<Participant, "name">>();
  const called = (list: readonly Entity<{ readonly name: string }>[], id: string) =>
    list.find((e) => e.id === id)?.data.name ?? "?";
  for (const { data } of library.log.byProject.get(projectId) ?? [])
    found.set(data.memberId, {
      memberId: data.memberId,
      placeName: called(library.places, data.placeId),
      rigName: called(library.rigs, data.rigId),
      channels: null,
      isSaid: false,
    });
  for (const { data } of library.parts.filter((p) => p.data.projectId === projectId))
    found.set(data.memberId, {
      memberId: data.memberId,
      placeName: called(library.places, data.placeId),
      rigName: called(library.rigs, data.rigId),
      channels: data.channels ?? null,
      isSaid: true,
    });
  return [...found.values()]
    .map((p) => ({ ...p, name: called(library.members, p.memberId) }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/**
 * Parts for projects from before there were any. Whoever wrote a project keeps the place and the rig it named; whoever logged
 * hours of somebody else's takes part as they last did. Projects that somebody already has a part in, or that only came from
 * others, are left: one says oneself whether to take part.
 */
export function partsToAdopt(library: Library): EditOf<"part">[] {
  const me = meOf(library);
  if (me === null) return [];
  return library.projects.flatMap((project): EditOf<"part">[] => {
    const { begun } = project.data;
    if (!begun || library.parts.some((p) => p.data.projectId === project.id)) return [];
    const last = (library.log.byProject.get(project.id) ?? [])
      .filter((c) => c.data.memberId === me)
      .reduce<ContributionData | null>((a, { data }) => (a === null || data.night >= a.night ? data : a), null);
    const isOwn = project.author === me || library.settings?.data.rigId === begun.rigId;
    const uses = isOwn ? begun : last && { placeId: last.placeId, rigId: last.rigId };
    if (!uses) return [];
    const data: PartData = { projectId: project.id, memberId: me, ...uses };
    const edit: EditOf<"part"> = { kind: "part", id: partId(project.id, me), data, baseRev: "latest" };
    return edit.id.length <= MOST_LETTERS ? [edit] : [];
  });
}

const MOST_LETTERS = 120; // of an identifier

/** Keeps such parts, all at once or, where one is refused, each for itself. What is refused is offered on the project's page. */
export async function adoptParts(library: Library): Promise<void> {
  const store = library.desk.at(theStore);
  const edits = partsToAdopt(library);
  if (edits.length === 0 || (await store.act(edits)).ok) return;
  await Promise.all(edits.map((edit) => store.act([edit])));
}

/** A part as it is changed, and the version that was on the page; "" where there was none. */
export interface ChangedPart {
  readonly rev: string;
  readonly data: PartData;
}

/** The edit that keeps a part. */
export const partEdit = ({ rev, data }: ChangedPart): EditOf<"part"> => ({
  kind: "part",
  id: partId(data.projectId, data.memberId),
  data,
  baseRev: rev === "" ? "latest" : rev,
});

/** One's own part in a project as it is, or as it would be taken with what one uses usually; null without a place or a rig. */
export function partToChange(library: Library, projectId: string): ChangedPart | null {
  const memberId = meOf(library) ?? "";
  const stored = partOf(library, projectId, memberId);
  if (stored) return { rev: stored.rev, data: stored.data };
  if (!library.settings) return null; // nothing here is one's own yet
  const { placeId, rigId } = library.settings.data;
  const place = library.places.find((p) => p.id === placeId) ?? library.places[0];
  const rig = library.rigs.find((r) => r.id === rigId) ?? library.rigs[0];
  return place && rig ? { rev: "", data: { projectId, memberId, placeId: place.id, rigId: rig.id } } : null;
}

/** Whether members of a project shoot with different rigs or from different places. */
export function hasUnequalKit(library: Library, projectId: string): boolean {
  const parts = library.parts.filter((p) => p.data.projectId === projectId);
  return new Set(parts.map((p) => `${p.data.rigId} ${p.data.placeId}`)).size > 1;
}
