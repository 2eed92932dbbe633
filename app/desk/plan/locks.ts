import type { LockData } from "~/core/season";
import type { KeepFault, EditOf } from "~/core/records";
import type { Result } from "~/core/result";
import type { NightDate } from "~/core/time";
import { keep, remove, type Kept } from "~/desk/records/acts";
import type { Entity, Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";

/** What a lock is about: a project or a place; neither = the whole night. */
export type LockAbout = Pick<LockData, "does" | "projectId" | "channel" | "placeId">;

/** One lock has one name, so that fixing a thing twice is one lock, in every tab. */
const lockId = (memberId: string, night: NightDate, { does, projectId, channel, placeId }: LockAbout): string =>
  ["lock", memberId, night, does, projectId ?? placeId ?? "night", ...(channel ? [channel] : [])]
    .join("-")
    .slice(0, 200);

/** One's own locks. */
export const ownLocks = (library: Library): readonly Entity<LockData>[] => {
  const me = meOf(library) ?? "me";
  return library.locks.filter((l) => l.data.memberId === me);
};

/** The edits that fix or forbid something on a night; the contrary lock on the same thing goes. */
function lockEdits(library: Library, night: NightDate, about: LockAbout): EditOf<"lock">[] {
  const memberId = meOf(library) ?? "me";
  const isSame = (l: Entity<LockData>) =>
    l.data.night === night &&
    l.data.projectId === about.projectId &&
    l.data.channel === about.channel &&
    l.data.placeId === about.placeId;
  const contrary = ownLocks(library).filter((l) => isSame(l) && l.data.does !== about.does);
  const id = lockId(memberId, night, about);
  return [
    ...contrary.map((l): EditOf<"lock"> => ({ kind: "lock", id: l.id, data: l.data, baseRev: l.rev, isDeleted: true })),
    { kind: "lock", id, data: { memberId, night, ...about }, baseRev: "latest" },
  ];
}

/** Fixes or forbids something on a night. */
export const lockNight = (library: Library, night: NightDate, about: LockAbout): Promise<Result<Kept, KeepFault>> =>
  keep(library.desk, lockEdits(library, night, about));

/** Fixes a project on another night; on the night it comes from it is not wanted, nor kept any more. */
export const moveNight = (
  library: Library,
  projectId: string,
  from: NightDate,
  to: NightDate,
): Promise<Result<Kept, KeepFault>> =>
  keep(library.desk, [
    ...lockEdits(library, to, { does: "fix", projectId }),
    ...lockEdits(library, from, { does: "forbid", projectId }),
  ]);

/** Lets go of locks. */
export const unlock = (library: Library, ids: readonly string[]): Promise<Result<Kept, KeepFault>> =>
  remove(
    library.desk,
    ownLocks(library).flatMap((l) => (ids.includes(l.id) ? [{ kind: "lock" as const, ...l }] : [])),
  );
