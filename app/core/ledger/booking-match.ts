import { searchKey } from "~/core/catalog";
import type { Channel } from "~/core/exposure";
import { opticsOf, panelName } from "~/core/framing";
import { layoutOf, panelsOf } from "~/core/plan";
import { separationDeg, type Equatorial } from "~/core/sky";
import { degToRad, turnTo } from "~/core/units";
import type { BookableProject, BookableRig } from "./booking-context";
import type { ExposureFacts } from "./exposure-facts";

/** A project's frame, worked out once for all files that are booked. */
export interface DrawnProject {
  readonly candidate: BookableProject;
  readonly panels: readonly {
    readonly name: string;
    readonly centre: Equatorial<"icrs">;
    readonly positionAngleDeg: number;
  }[];
  /** How near to a panel's centre an exposure of it lies: half of the shorter side of a panel. */
  readonly reachDeg: number;
  readonly fieldHeightDeg: number;
  readonly halfDiagonalDeg: number;
  /** Names the target goes by, as they are searched for. */
  readonly keys: ReadonlySet<string>;
}

/** Works a project's frame out. */
export function drawn(candidate: BookableProject): DrawnProject {
  const optics = opticsOf(candidate.frameRig);
  const { planeWidthArcmin, planeHeightArcmin } = layoutOf(candidate.frame, optics);
  return {
    candidate,
    panels: panelsOf(candidate.frame, optics).map(({ number, centre, positionAngleDeg }) => ({
      name: panelName(number),
      centre,
      positionAngleDeg,
    })),
    reachDeg: Math.min(planeWidthArcmin, planeHeightArcmin) / 120,
    fieldHeightDeg: optics.fieldHeightDeg,
    halfDiagonalDeg: Math.hypot(optics.fieldWidthDeg, optics.fieldHeightDeg) / 2,
    keys: new Set(candidate.targetNames.map(searchKey)),
  };
}

/** A panel that an exposure can be of. */
export interface Match {
  readonly of: DrawnProject;
  readonly panel: string;
  readonly offDeg: number;
  readonly panelCentre: Equatorial<"icrs">;
  readonly panelAngleDeg: number;
}

/** Of every project, the panel whose centre is nearest to where the header points, if that lies in its frame. */
export function matchesByPointing(facts: ExposureFacts, projects: readonly DrawnProject[]): Match[] {
  const { centre } = facts;
  if (!centre) return [];
  return projects
    .flatMap((of) => {
      let best: Match | null = null;
      for (const { name, centre: at, positionAngleDeg } of of.panels) {
        // Declinations alone rule nearly all of them out.
        if (Math.abs(at.decDeg - centre.decDeg) > of.reachDeg) continue;
        const offDeg = separationDeg(at, centre);
        if (offDeg <= of.reachDeg && (best === null || offDeg < best.offDeg))
          best = { of, panel: name, offDeg, panelCentre: at, panelAngleDeg: positionAngleDeg };
      }
      return best ?? [];
    })
    .filter(isBestOfProject(facts.positionAngleDeg));
}

/**
 * Of a project's frames, the one whose panel the exposure fits best: how far a corner is off by shift and turn together. Of two that
 * fit alike, the first.
 */
const isBestOfProject =
  (positionAngleDeg: number | null) =>
  (match: Match, at: number, all: readonly Match[]): boolean => {
    const off = (m: Match) => {
      if (positionAngleDeg === null) return m.offDeg;
      return m.offDeg + m.of.halfDiagonalDeg * Math.sin(degToRad(Math.abs(turnTo(positionAngleDeg, m.panelAngleDeg))));
    };
    return all.every(
      (m, i) =>
        m.of.candidate.id !== match.of.candidate.id || off(m) > off(match) || (off(m) === off(match) && i >= at),
    );
  };

/** Projects whose target is named as the header's object, or as a folder the file lay in. */
export function matchesByName(facts: ExposureFacts, projects: readonly DrawnProject[]): Match[] {
  const said = [facts.object ?? "", ...facts.hints].flatMap((h) => (h === "" ? [] : [searchKey(h)]));
  return unpointed(facts, projects).filter((m) => said.some((key) => m.of.keys.has(key)));
}

/** Projects with a panel that files without a pointing can be of: the only one, else the one their path names, as "P3". */
export function unpointed(facts: ExposureFacts, projects: readonly DrawnProject[]): Match[] {
  const shot = new Map<string, DrawnProject>();
  for (const p of projects) if (!shot.has(p.candidate.id)) shot.set(p.candidate.id, p);
  const words = new Set(facts.hints.flatMap((h) => h.toUpperCase().split(/[^A-Z0-9]+/)));
  return [...shot.values()].flatMap((of) => {
    const [panel, ...more] = of.panels.length === 1 ? of.panels : of.panels.filter((p) => words.has(p.name));
    if (!panel || more.length > 0) return [];
    const { name, centre, positionAngleDeg } = panel;
    return [{ of, panel: name, offDeg: 0, panelCentre: centre, panelAngleDeg: positionAngleDeg }];
  });
}

const CENTRES_APART = 0.25; // of the nearer one's distance and a panel: closer than that, position alone tells nothing

/** The projects that an exposure can belong to, as well one as another: by position, then by the rig, then by the channel wanted. */
export function projectsFor(
  facts: ExposureFacts,
  matches: readonly Match[],
  rigs: readonly BookableRig[],
  channel: Channel | null,
): readonly Match[] {
  let left = [...matches].sort((a, b) => a.offDeg - b.offDeg);
  const narrow = (is: (m: Match) => boolean) => {
    const some = left.filter(is);
    if (some.length > 0) left = some;
  };
  const [nearest] = left;
  if (nearest) narrow((m) => m.offDeg <= nearest.offDeg + CENTRES_APART * nearest.of.fieldHeightDeg);
  if (left.length > 1) narrow((m) => rigs.some((r) => r.id === m.of.candidate.rigId));
  if (left.length > 1) narrow((m) => m.of.candidate.goals?.channels.some((g) => g.channel === channel) ?? false);
  if (left.length > 1 && facts.object !== null) {
    const key = searchKey(facts.object);
    narrow((m) => m.of.keys.has(key));
  }
  if (left.length > 1 && facts.startMs !== null) {
    const day = new Date(facts.startMs).toISOString().slice(0, 10);
    narrow((m) => m.of.candidate.project.startedOn <= day);
  }
  return left;
}
