import { firstStepOf } from "~/desk/kit/better";
import { starAt, starsWithin, type SkyData } from "~/core/catalog";
import { frameSketch, sketchPoint, type SketchPoint } from "~/core/framing";
import { channelSums } from "~/core/ledger";
import { shareOf, type ShareNight } from "~/core/season";
import type { Equatorial } from "~/core/sky";
import type { Desk } from "~/desk/desk";
import { seasonInTurns } from "~/desk/plan/season";
import { gapOf } from "~/desk/projects/project-gap";
import { contextOf, ownContextsOf, type ProjectContext } from "~/desk/projects/project";
import type { Library } from "~/desk/records/library";
import { libraryHere } from "~/desk/records/open-library";
import { skyData } from "~/desk/sky/chart-sky";
import { findTarget, targetNameOf } from "~/desk/sky/targets";

const MOST_STARS = 60;
const FAINTEST_MAG = 10;
const WIDEST_DEG = 60;
const AROUND = 1.35; // of the frame's own half: what lies about it

/** What lies around a frame: stars, and the outline of what it is of. */
export interface FieldSketch {
  readonly stars: readonly { readonly at: SketchPoint; readonly magnitude: number }[];
  readonly target: {
    readonly at: SketchPoint;
    readonly semiMajorArcmin: number;
    readonly semiMinorArcmin: number;
    readonly positionAngleDeg: number;
  } | null;
}

/** What a project's card says at once. */
function cardOf(library: Library, c: ProjectContext) {
  const frame = frameSketch(c.layout);
  return {
    target: targetNameOf(library, c.project.data.targetId),
    rig: c.rig.data.name,
    place: c.place.data.name,
    zone: c.place.data.timeZone,
    panels: c.panels.length,
    channels: channelSums(c.cells),
    members: new Set(c.contributions.map((x) => x.data.memberId)).size,
    frame,
    halfArcmin: frame.halfArcmin * AROUND,
    isMine: c.part.isMine,
  };
}

/** The brightest stars within a square around a frame. */
function starsAround(sky: SkyData, centre: Equatorial<"icrs">, reachArcmin: number): FieldSketch["stars"] {
  const { raDeg, decDeg } = centre;
  const radiusDeg = Math.min(WIDEST_DEG, (reachArcmin * Math.SQRT2) / 60);
  return starsWithin(sky.stars, { raDeg, decDeg, radiusDeg, faintest: FAINTEST_MAG })
    .map((row) => starAt(sky.stars.stars, row))
    .sort((a, b) => a.magnitude - b.magnitude)
    .flatMap((star) => {
      const at = sketchPoint(centre, star.at);
      const isNear = at && Math.max(Math.abs(at[0]), Math.abs(at[1])) < reachArcmin;
      return isNear ? [{ at, magnitude: star.magnitude }] : [];
    })
    .slice(0, MOST_STARS);
}

/** Stars and target around each frame; what cannot be fetched is left out, since a card says all it has to say without. */
async function fieldsOf(library: Library): Promise<Readonly<Record<string, FieldSketch>>> {
  const sky = await skyData(library.desk).catch(() => null);
  const fields = library.projects.map(async ({ id, data }): Promise<readonly [string, FieldSketch] | null> => {
    const c = contextOf(library, id);
    if (!c) return null;
    const { centre } = c.layout;
    const reachArcmin = frameSketch(c.layout).halfArcmin * AROUND;
    const stars = sky ? starsAround(sky, centre, reachArcmin) : [];
    const entry = await findTarget(library, data.targetId).catch(() => null); // drawn without it
    const at = entry && sketchPoint(centre, entry.at);
    const majorArcmin = entry?.majorArcmin ?? 0;
    const target =
      at && majorArcmin > 0
        ? {
            at,
            semiMajorArcmin: majorArcmin / 2,
            semiMinorArcmin: (entry.minorArcmin ?? majorArcmin) / 2,
            positionAngleDeg: entry.positionAngleDeg ?? 0,
          }
        : null;
    return [id, { stars, target }];
  });
  return Object.fromEntries((await Promise.all(fields)).filter((f) => f !== null));
}

/** The next night of each project of one's own in the plan; null where it has none. */
async function nextNights(library: Library): Promise<Readonly<Record<string, ShareNight | null>>> {
  const own = ownContextsOf(library);
  if (own.length === 0) return {};
  const plan = await (await seasonInTurns(library)).settled;
  return Object.fromEntries(own.map((c) => [c.id, shareOf(plan, c.id).nights[0] ?? null]));
}

/** Nothing waits for what comes later, and where it fails the card says so. */
function later<T>(work: Promise<T>): Promise<T> {
  work.catch(() => undefined);
  return work;
}

/** The projects, each as a card; what must be looked up or planned comes later. */
export async function loadProjects(desk: Desk) {
  const library = await libraryHere(desk);
  const projects = library.projects.map((p) => {
    const c = contextOf(library, p.id);
    return { id: p.id, name: p.data.name, card: c && cardOf(library, c), gap: c ? null : gapOf(library, p.id) };
  });
  return {
    projects,
    firstStep: firstStepOf(library),
    fields: later(fieldsOf(library)),
    next: later(nextNights(library)),
  };
}

/** The projects as their page shows them. */
export type ProjectsView = Awaited<ReturnType<typeof loadProjects>>;
export type ProjectCardView = NonNullable<ProjectsView["projects"][number]["card"]>;
