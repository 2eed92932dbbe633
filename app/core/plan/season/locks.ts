import type { NightDate } from "~/core/time";

/** Something a person has fixed by hand: a project or a place that a night is for, or what it is not for; neither = the whole night is not to be used. */
export interface LockData {
  readonly memberId: string;
  readonly night: NightDate;
  readonly does: "fix" | "forbid";
  readonly projectId?: string;
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

/** What locks ask about: where a project is shot and with which rig, and whether a night has a usable block for it. */
export interface LockedProject {
  readonly id: string;
  readonly placeId: string;
  readonly rigId: string;
  readonly hasWork: boolean;
}

const isOf = (lock: LockData, what: "night" | "project" | "place"): boolean =>
  what === "project" ? lock.projectId !== undefined : what === "place" ? lock.placeId !== undefined && lock.projectId === undefined : lock.projectId === undefined && lock.placeId === undefined; // prettier-ignore

/**
 * The locks that contradict each other or the sky, each as the smallest set that cannot be kept: one lock where it cannot be kept by
 * itself, else two, else one target more than a night takes. A set that holds a smaller one is not named.
 */
export function lockConflicts(
  locks: readonly Lock[],
  projects: readonly LockedProject[],
  rules: {
    readonly targetsANight: number;
    readonly isOneRig: boolean;
    readonly isUsable: (projectId: string, night: NightDate) => boolean;
  },
): LockConflict[] {
  const found: LockConflict[] = [];
  for (const night of [...new Set(locks.map((l) => l.night))].sort()) {
    const mine = locks.filter((l) => l.night === night);
    const name = (why: LockConflict["why"], ...set: Lock[]) => found.push({ locks: set.map((l) => l.id), why, night });
    const bad = new Set<Lock>();
    const fixes = mine.filter((l) => l.does === "fix" && isOf(l, "project"));
    for (const fix of fixes) {
      const project = projects.find((p) => p.id === fix.projectId);
      if (!project?.hasWork) name("nothingLeft", fix);
      else if (!rules.isUsable(project.id, night)) name("notUsable", fix);
      else continue;
      bad.add(fix);
    }
    const good = fixes.filter((l) => !bad.has(l));
    const placeOf = (l: Lock) => projects.find((p) => p.id === l.projectId)?.placeId;
    const closed = mine.filter((l) => l.does === "forbid");
    const places = mine.filter((l) => l.does === "fix" && isOf(l, "place"));
    const clash = new Set<Lock>();
    const pair = (why: LockConflict["why"], a: Lock, b: Lock) => {
      name(why, a, b);
      clash.add(a).add(b);
    };
    for (const fix of good)
      for (const no of closed)
        if (isOf(no, "night") || no.projectId === fix.projectId || (isOf(no, "place") && no.placeId === placeOf(fix)))
          pair("fixedAndForbidden", fix, no);
    for (const at of places) {
      for (const no of closed) if (isOf(no, "night") || (isOf(no, "place") && no.placeId === at.placeId)) pair("fixedAndForbidden", at, no); // prettier-ignore
      for (const fix of good) if (placeOf(fix) !== at.placeId) pair("otherPlace", at, fix);
    }
    places.forEach((a, i) => places.slice(i + 1).forEach((b) => a.placeId !== b.placeId && pair("twoPlaces", a, b)));
    good.forEach((a, i) => good.slice(i + 1).forEach((b) => placeOf(a) !== placeOf(b) && pair("twoPlaces", a, b)));
    const left = good.filter((l) => !clash.has(l));
    const rigOf = (l: Lock) => (rules.isOneRig ? "" : (projects.find((p) => p.id === l.projectId)?.rigId ?? ""));
    for (const rig of new Set(left.map(rigOf))) {
      const targets = [...new Map(left.filter((l) => rigOf(l) === rig).map((l) => [l.projectId, l])).values()];
      if (targets.length > rules.targetsANight) name("tooManyTargets", ...targets.slice(0, rules.targetsANight + 1));
    }
  }
  return found;
}

/** What the locks leave of a night: whether it can be used at all, by which projects, and at which places. */
export function lockedNight(
  locks: readonly Lock[],
  night: NightDate,
): {
  readonly isOpen: boolean;
  readonly fixed: readonly string[];
  readonly mayShoot: (projectId: string, placeId: string) => boolean;
} {
  const mine = locks.filter((l) => l.night === night);
  const forbids = mine.filter((l) => l.does === "forbid");
  const at = mine.find((l) => l.does === "fix" && isOf(l, "place"))?.placeId;
  return {
    isOpen: !forbids.some((l) => isOf(l, "night")),
    fixed: mine.flatMap((l) => (l.does === "fix" && l.projectId !== undefined ? [l.projectId] : [])),
    mayShoot: (projectId, placeId) =>
      !forbids.some((l) => l.projectId === projectId || (isOf(l, "place") && l.placeId === placeId)) &&
      (at === undefined || at === placeId),
  };
}
