import { cullHints, likeKey, type CullHint, type CullSub } from "~/core/ledger";
import type { SubLimits } from "~/core/exposure";
import { median } from "~/core/numeric";
import { positionAngleDeg, separationDeg, type Equatorial } from "~/core/sky";
import { HOUR_MS } from "~/core/time";
import { degToRad, radToDeg, wrap360 } from "~/core/units";

/** What the middle sub of its like was; null = fewer than three say so. */
export interface UsualSub {
  readonly fwhmPx: number | null;
  readonly eccentricity: number | null;
  readonly stars: number | null;
  readonly background: number | null;
}

/** How the pointing of a panel went over a night, by the solutions of its subs. */
export interface PointingDrift {
  /** How fast it goes, arcseconds an hour, and towards where, degrees from north over east. */
  readonly arcsecPerHour: number;
  readonly towardsDeg: number;
  /** The solved subs by which it is known. */
  readonly subs: number;
}

/** The sub that landed last, held against its like of the night: one project, panel, channel, rig and length. */
export interface Landing {
  readonly sub: CullSub;
  /** How many of its like there are, it among them. */
  readonly count: number;
  readonly usual: UsualSub;
  /** Why it stands out; null = it does not, or there are too few to tell. */
  readonly hint: CullHint | null;
  /** From the middle of its panel, arcminutes; null = not solved, or the panel is not known. */
  readonly offArcmin: number | null;
  readonly drift: PointingDrift | null;
}

const LEAST_USUAL = 3; // of fewer the middle is one of them
const LEAST_SOLVED = 6; // dithers of a few arcseconds hide what fewer show
const MOST_SOLVED = 40; // the latest: how it drifts now is asked for, and pairs grow by the square
const LEAST_DRIFT_MS = HOUR_MS / 3;

function usualOf(group: readonly CullSub[]): UsualSub {
  const middle = (what: keyof UsualSub): number | null => {
    const values = group.flatMap((s) => s.data.measure?.[what] ?? []);
    return values.length < LEAST_USUAL ? null : median(values);
  };
  return {
    fwhmPx: middle("fwhmPx"),
    eccentricity: middle("eccentricity"),
    stars: middle("stars"),
    background: middle("background"),
  };
}

/**
 * How fast solved subs wander from where the first of them pointed: the middle of the slopes between all pairs, which dithers and single
 * bad solutions leave alone (Theil 1950, Sen 1968). Null with fewer than six of them, or in under 20 minutes.
 */
export function pointingDrift(
  solved: readonly { readonly startMs: number; readonly at: Equatorial<"icrs"> }[],
): PointingDrift | null {
  const [first] = solved;
  if (!first || solved.length < LEAST_SOLVED) return null;
  const places = solved.map(({ startMs, at }) => {
    const arcsec = 3600 * separationDeg(first.at, at);
    const towards = degToRad(positionAngleDeg(first.at, at));
    return { hours: startMs / HOUR_MS, north: arcsec * Math.cos(towards), east: arcsec * Math.sin(towards) };
  });
  const hours = places.map((p) => p.hours);
  if ((Math.max(...hours) - Math.min(...hours)) * HOUR_MS < LEAST_DRIFT_MS) return null;
  const slope = (what: "north" | "east") =>
    median(
      places.flatMap((a, i) =>
        places.slice(i + 1).flatMap((b) => (a.hours === b.hours ? [] : (b[what] - a[what]) / (b.hours - a.hours))),
      ),
    );
  const [north, east] = [slope("north"), slope("east")];
  return {
    arcsecPerHour: Math.hypot(north, east),
    towardsDeg: wrap360(radToDeg(Math.atan2(east, north))),
    subs: solved.length,
  };
}

const atOf = ({ data }: CullSub): Equatorial<"icrs"> | null =>
  data.at ? { frame: "icrs", raDeg: data.at.raDeg, decDeg: data.at.decDeg } : null;

/** The latest sub of a night with one rig, in order of time; null without any. */
export function latestLanding(
  subs: readonly CullSub[],
  limitsOf: (rigId: string) => SubLimits | undefined,
  centreOf: (sub: CullSub) => Equatorial<"icrs"> | null,
): Landing | null {
  const sub = subs.at(-1);
  if (!sub) return null;
  const like = subs.filter((s) => likeKey(s.data) === likeKey(sub.data));
  const [at, centre] = [atOf(sub), centreOf(sub)];
  // Only what a plate solution says has the angle of the camera: a mount's own word is where it wants to be.
  const solved = like.flatMap((s) => {
    const there = atOf(s);
    return there && s.data.at!.positionAngleDeg !== null && s.data.startMs !== null
      ? { startMs: s.data.startMs, at: there }
      : [];
  });
  const isSolved = sub.data.at !== undefined && sub.data.at.positionAngleDeg !== null;
  return {
    sub,
    count: like.length,
    usual: usualOf(like),
    hint: cullHints(like, limitsOf).find((h) => h.id === sub.id) ?? null,
    offArcmin: at && centre && isSolved ? 60 * separationDeg(at, centre) : null,
    drift: pointingDrift(solved.slice(-MOST_SOLVED)),
  };
}
