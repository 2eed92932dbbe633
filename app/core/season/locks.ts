import type { Channel } from "~/core/exposure";
import type { NightDate } from "~/core/time";

/** Something a person has fixed by hand: a project (or a channel of it) or a place that a night is for, or what it is not for; neither = the whole night is not to be used. */
export interface LockData {
  readonly memberId: string;
  readonly night: NightDate;
  readonly does: "fix" | "forbid";
  readonly projectId?: string;
  /** With a project: only this channel of it. */
  readonly channel?: Channel;
  readonly placeId?: string;
}

/** A lock with its name. */
export interface Lock extends LockData {
  readonly id: string;
}

/** Locks that cannot all be kept: as few of them as do not go together, and why. */
export interface LockConflict {
  readonly locks: readonly string[];
  readonly why: "fixedAndForbidden" | "twoPlaces" | "tooManyTargets" | "otherPlace" | "notUsable" | "nothingLeft";
  readonly night: NightDate;
}

/** What locks ask about: where a project is shot and with which rig, and whether anything of it is left. */
export interface LockedProject {
  readonly id: string;
  readonly placeId: string;
  readonly rigId: string;
  readonly hasWork: boolean;
}

const isOf = (lock: LockData, what: "night" | "project" | "place"): boolean =>
  what === "project"
    ? lock.projectId !== undefined
    : what === "place"
      ? lock.placeId !== undefined && lock.projectId === undefined
      : lock.projectId === undefined && lock.placeId === undefined;

/** What locks are judged by, beside the projects. */
export interface LockRules {
  readonly targetsANight: number;
  readonly isOneRig: boolean;
  /** Places to which rigs are taken for what is shot elsewhere. */
  readonly drives: readonly string[];
  /** Channels of a project that a night has a usable block for. */
  readonly usable: (projectId: string, night: NightDate) => readonly Channel[];
}

/** Whether one evening can be spent so that all of some locks of its night are kept. */
function canKeep(set: readonly Lock[], projects: readonly LockedProject[], rules: LockRules): boolean {
  const fixes = set.filter((l) => l.does === "fix");
  const forbids = set.filter((l) => l.does === "forbid");
  if (fixes.length === 0) return true;
  if (forbids.some((l) => isOf(l, "night"))) return false;
  const works = fixes.filter((l) => isOf(l, "project"));
  const wanted = projects.filter((p) => works.some((l) => l.projectId === p.id));
  const isRuledOut = (id: string, channel: Channel) =>
    forbids.some((no) => no.projectId === id && (no.channel ?? channel) === channel);
  const isPossible = (l: Lock) => {
    const project = wanted.find((p) => p.id === l.projectId);
    if (!project?.hasWork) return false;
    return channelsFor(l, rules.usable(project.id, l.night)).some((c) => !isRuledOut(project.id, c));
  };
  if (!works.every(isPossible)) return false;
  const rigOf = (p: LockedProject) => (rules.isOneRig ? "" : p.rigId);
  const count = (rig: string) => wanted.filter((p) => rigOf(p) === rig).length;
  if (wanted.some((p) => count(rigOf(p)) > rules.targetsANight)) return false;
  const named = fixes.flatMap((l) => (isOf(l, "place") ? l.placeId! : []));
  const places = new Set([...named, ...wanted.map((p) => p.placeId), ...rules.drives]);
  return [...places].some(
    (at) =>
      named.every((id) => id === at) &&
      !forbids.some((l) => isOf(l, "place") && l.placeId === at) &&
      wanted.every((p) => p.placeId === at || rules.drives.includes(at)),
  );
}

/** Why a smallest set of locks cannot be kept. */
function reasonFor(set: readonly Lock[], projects: readonly LockedProject[]): LockConflict["why"] {
  const [first] = set;
  if (set.length === 1) return projects.find((p) => p.id === first!.projectId)?.hasWork ? "notUsable" : "nothingLeft";
  if (set.some((l) => l.does === "forbid")) return "fixedAndForbidden";
  if (set.some((l) => isOf(l, "place"))) return set.every((l) => isOf(l, "place")) ? "twoPlaces" : "otherPlace";
  const places = new Set(set.flatMap((l) => projects.find((p) => p.id === l.projectId)?.placeId ?? []));
  return places.size > 1 ? "twoPlaces" : "tooManyTargets";
}

const MOST_TRIED = 12; // locks on one night; who fixes more than that is told of the first ones
const LARGEST = 4; // locks of a set; larger ones are not looked for among many

/** Sets of so many of some things. */
function* subsets<T>(all: readonly T[], size: number, from = 0): Generator<T[]> {
  if (size === 0) yield [];
  else
    for (let i = from; i <= all.length - size; i++)
      for (const rest of subsets(all, size - 1, i + 1)) yield [all[i]!, ...rest];
}

/**
 * The locks that contradict each other or the sky, each as a smallest set that cannot be kept: no lock of it can be left out. Sets of
 * one and two are all named, larger ones where no lock of theirs is named yet.
 */
export function lockConflicts(
  locks: readonly Lock[],
  projects: readonly LockedProject[],
  rules: LockRules,
): LockConflict[] {
  const found: LockConflict[] = [];
  for (const night of [...new Set(locks.map((l) => l.night))].sort()) {
    const all = locks.filter((l) => l.night === night);
    const mine = all.slice(0, MOST_TRIED);
    const sets: Lock[][] = [];
    for (let size = 1; size <= Math.min(mine.length, mine.length > 8 ? LARGEST : mine.length); size++)
      for (const set of subsets(mine, size)) {
        const isNamed = sets.some((s) => (size > 2 ? s.some((l) => set.includes(l)) : s.every((l) => set.includes(l))));
        if (!isNamed && !canKeep(set, projects, rules)) sets.push(set);
      }
    for (const set of sets) found.push({ locks: set.map((l) => l.id), why: reasonFor(set, projects), night });
  }
  return found;
}

/** The channels that a lock leaves of some. */
const channelsFor = (lock: LockData, channels: readonly Channel[]): readonly Channel[] =>
  lock.channel === undefined ? channels : channels.filter((c) => c === lock.channel);

/** A project, or one channel of it. */
export type FixedWork = Required<Pick<LockData, "projectId">> & Pick<LockData, "channel">;

/** What the locks leave of a night: whether it can be used at all, by which projects, and at which places. */
export function lockedNight(
  locks: readonly Lock[],
  night: NightDate,
): {
  readonly isOpen: boolean;
  readonly fixed: readonly FixedWork[];
  readonly mayShoot: (projectId: string, placeId: string, channels: readonly Channel[]) => boolean;
} {
  const mine = locks.filter((l) => l.night === night);
  const forbids = mine.filter((l) => l.does === "forbid");
  const at = mine.find((l) => l.does === "fix" && isOf(l, "place"))?.placeId;
  return {
    isOpen: !forbids.some((l) => isOf(l, "night")),
    fixed: mine.flatMap(({ does, projectId, channel }) =>
      does === "fix" && projectId !== undefined ? [{ projectId, ...(channel === undefined ? {} : { channel }) }] : [],
    ),
    mayShoot: (projectId, placeId, channels) =>
      !forbids.some(
        (l) =>
          (l.projectId === projectId && (l.channel === undefined || channels.includes(l.channel))) ||
          (isOf(l, "place") && l.placeId === placeId),
      ) &&
      (at === undefined || at === placeId),
  };
}
