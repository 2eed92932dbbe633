import { searchKey } from "~/core/catalog";
import type { Channel, Filter, Rig } from "~/core/exposure";
import { opticsOf, panelName } from "~/core/framing";
import type { Place } from "~/core/night";
import { layoutOf, panelsOf, type FrameData, type GoalData, type ProjectData } from "~/core/plan";
import { err, ok, type Result } from "~/core/result";
import { nightOf, separationDeg } from "~/core/sky";
import { instantOfWall } from "~/core/time";
import { ARCSEC_PER_RAD, degToRad, turnTo } from "~/core/units";
import type { CalibrationData, ContributionData } from "./contribution";
import type { ExposureFacts } from "./exposure-facts";
import { channelOfFilter } from "./filter-name";

/**
 * A project with what booking needs to know of it, by the part of whose files these are; its frame is drawn with `frameRig`. A
 * project of several frames comes once for each, the one that is shot first.
 */
export interface BookableProject {
  readonly id: string;
  readonly project: ProjectData;
  /** The rig of that part. */
  readonly rigId: string;
  readonly frameId: string;
  readonly frame: FrameData;
  readonly goals: GoalData | null;
  readonly frameRig: Rig;
  /** Names the target goes by. */
  readonly targetNames: readonly string[];
}

/** A rig that files can come from. */
export interface BookableRig {
  readonly id: string;
  readonly rig: Rig;
  readonly filters: readonly Filter[];
  /** Where it was last used by whose files these are; null = never. */
  readonly lastPlaceId: string | null;
}

/** A place that files can come from. */
export interface BookablePlace {
  readonly id: string;
  readonly place: Place;
}

/** Whose files they are, and what they can belong to. */
export interface BookingContext {
  readonly memberId: string;
  readonly projects: readonly BookableProject[];
  readonly rigs: readonly BookableRig[];
  readonly places: readonly BookablePlace[];
}

/** Something in the header that does not agree with the plan; the exposure is booked all the same. */
export interface Mismatch {
  readonly code:
    | "rotation"
    | "pointing"
    | "focalLength"
    | "exposure"
    | "temperature"
    | "notPlanned"
    | "camera"
    | "binning"
    | "gain"
    | "solution"
    /** Nothing in the file says where it points, or at what. */
    | "noPointing";
  readonly found: number | string;
  readonly wanted: number | string;
}

/** Why an exposure could not be booked. */
export interface BookingFault {
  readonly code:
    | "notALight"
    | "noStart"
    | "noExposure"
    | "noFilter"
    | "unknownFilter"
    | "noPointing"
    | "noProject"
    | "noRig"
    | "noPlace";
  /** The header's own value, where there is one. */
  readonly found: string;
}

/** What a person says where a header leaves several answers. */
export interface BookingAnswer {
  readonly projectId?: string;
  readonly rigId?: string;
  readonly placeId?: string;
}

/** Several answers are possible: what is to be asked, once for all files that leave the same ones. */
export interface BookingQuestion {
  readonly kind: "question";
  /** The same for all files that leave the same answers open. */
  readonly key: string;
  readonly projects: readonly string[];
  readonly rigs: readonly string[];
  readonly places: readonly string[];
  readonly object: string;
  readonly channel: Channel | null;
  readonly exposureSec: number;
}

/** Where an exposure belongs. */
export type Booking =
  | {
      readonly kind: "light";
      readonly data: ContributionData;
      readonly projectName: string;
      readonly mismatches: readonly Mismatch[];
    }
  | { readonly kind: "calibration"; readonly data: CalibrationData };

const SCALE_TOLERANCE = 0.04; // focal length changes with back focus and temperature, reducers with both
const SAME_PLACE_KM = 5; // a phone's fix, a town's middle
const EARTH_KM = 6371;

/** Scale that a header implies, ″/px: from a solution, else from focal length, pixel and binning; null when it is silent. */
function scaleOf(facts: ExposureFacts): number | null {
  if (facts.pixelScaleArcsec !== null) return facts.pixelScaleArcsec;
  const { focalLengthMm, pixelPitchUm, binning } = facts;
  if (focalLengthMm === null || pixelPitchUm === null || !(focalLengthMm > 0)) return null;
  return ((ARCSEC_PER_RAD / 1000) * pixelPitchUm * (binning ?? 1)) / focalLengthMm;
}

const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

/** How well a rig explains a header: higher is better, null = it cannot be this one. */
function rigScore(facts: ExposureFacts, { rig, filters }: BookableRig): number | null {
  let score = 0;
  const scale = scaleOf(facts);
  if (scale !== null) {
    const mine = opticsOf(rig).pixelScaleArcsecPerPx / rig.sensor.binning;
    // Any binning: a wrong one is named, and no other rig.
    const binned = [1, 2, 3, 4].some((b) => Math.abs(scale / (mine * b) - 1) <= SCALE_TOLERANCE);
    // A solution measures; a focal length in a header is typed, and reducers are forgotten there: then it only speaks for others.
    if (!binned && facts.pixelScaleArcsec !== null) return null;
    if (binned) score += Math.abs(scale / (mine * rig.sensor.binning) - 1) <= SCALE_TOLERANCE ? 4 : 2;
  }
  if (facts.camera !== null && rig.cameraName !== "") {
    if (!sameName(facts.camera, rig.cameraName)) return null;
    score += 4;
  }
  if (facts.filter === null) return rig.isColour ? score + 1 : score;
  const channel = channelOfFilter(facts.filter, filters);
  if (filters.some((f) => sameName(f.name, facts.filter!))) score += 2;
  else if (channel !== null && filters.some((f) => f.channel === channel)) score += 1;
  return score;
}

/** The rigs that explain a header best, and as well as one another. Camera names that fit no rig at all do not count. */
function rigsFor(facts: ExposureFacts, rigs: readonly BookableRig[]): readonly BookableRig[] {
  const scored = (f: ExposureFacts) =>
    rigs.flatMap((rig) => {
      const score = rigScore(f, rig);
      return score === null ? [] : [{ rig, score }];
    });
  let found = scored(facts);
  if (found.length === 0) found = scored({ ...facts, camera: null });
  const best = Math.max(...found.map((f) => f.score));
  return found.filter((f) => f.score === best).map((f) => f.rig);
}

interface Match {
  readonly candidate: BookableProject;
  readonly panel: string;
  readonly offDeg: number;
  readonly panelAngleDeg: number;
}

/** Of every project, the panel whose centre is nearest to where the header points, if that lies in its frame. */
function matchesByPointing(facts: ExposureFacts, projects: readonly BookableProject[]): Match[] {
  const { centre } = facts;
  if (!centre) return [];
  return projects
    .flatMap((candidate) => {
      const optics = opticsOf(candidate.frameRig);
      const layout = layoutOf(candidate.frame, optics);
      const reach = Math.min(layout.planeWidthArcmin, layout.planeHeightArcmin) / 120;
      const near = panelsOf(candidate.frame, optics)
        .map((p) => ({
          candidate,
          panel: panelName(p.number),
          offDeg: separationDeg(p.centre, centre),
          panelAngleDeg: p.positionAngleDeg,
        }))
        .filter((m) => m.offDeg <= reach)
        .sort((a, b) => a.offDeg - b.offDeg);
      return near.slice(0, 1);
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
      const half =
        Math.hypot(opticsOf(m.candidate.frameRig).fieldWidthDeg, opticsOf(m.candidate.frameRig).fieldHeightDeg) / 2;
      return m.offDeg + half * Math.sin(degToRad(Math.abs(turnTo(positionAngleDeg, m.panelAngleDeg))));
    };
    return all.every(
      (m, i) => m.candidate.id !== match.candidate.id || off(m) > off(match) || (off(m) === off(match) && i >= at),
    );
  };

/** Projects whose target is named as the header's object, or as a folder the file lay in. */
function matchesByName(facts: ExposureFacts, projects: readonly BookableProject[]): Match[] {
  const said = new Set([facts.object ?? "", ...facts.hints].flatMap((h) => (h === "" ? [] : [searchKey(h)])));
  return unpointed(facts, projects).filter((m) => m.candidate.targetNames.some((n) => said.has(searchKey(n))));
}

/** Projects with a panel that files without a pointing can be of: the only one, else the one their path names, as "P3". */
function unpointed(facts: ExposureFacts, projects: readonly BookableProject[]): Match[] {
  const shot = projects.filter((p, i) => projects.findIndex((q) => q.id === p.id) === i);
  const words = new Set(facts.hints.flatMap((h) => h.toUpperCase().split(/[^A-Z0-9]+/)));
  return shot.flatMap((candidate) => {
    const panels = panelsOf(candidate.frame, opticsOf(candidate.frameRig));
    const [panel, ...more] = panels.length === 1 ? panels : panels.filter((p) => words.has(panelName(p.number)));
    if (!panel || more.length > 0) return [];
    return [{ candidate, panel: panelName(panel.number), offDeg: 0, panelAngleDeg: panel.positionAngleDeg }];
  });
}

const CENTRES_APART = 0.25; // of the nearer one's distance and a panel: closer than that, position alone tells nothing

/** The projects that an exposure can belong to, as well one as another: by position, then by the rig, then by the channel wanted. */
function projectsFor(
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
  if (nearest) {
    const side = opticsOf(nearest.candidate.frameRig).fieldHeightDeg;
    narrow((m) => m.offDeg <= nearest.offDeg + CENTRES_APART * side);
  }
  if (left.length > 1) narrow((m) => rigs.some((r) => r.id === m.candidate.rigId));
  if (left.length > 1) narrow((m) => m.candidate.goals?.channels.some((g) => g.channel === channel) ?? false);
  if (left.length > 1 && facts.object !== null) {
    const key = searchKey(facts.object);
    narrow((m) => m.candidate.targetNames.some((n) => searchKey(n) === key));
  }
  if (left.length > 1 && facts.startMs !== null) {
    const day = new Date(facts.startMs).toISOString().slice(0, 10);
    narrow((m) => m.candidate.project.startedOn <= day);
  }
  return left;
}

/** Kilometres between two places on a round Earth. */
function kmApart(
  a: { readonly latitudeDeg: number; readonly longitudeDeg: number },
  b: { readonly latitudeDeg: number; readonly longitudeDeg: number },
): number {
  const at = (p: typeof a) => ({ frame: "icrs", raDeg: p.longitudeDeg, decDeg: p.latitudeDeg }) as const;
  return degToRad(separationDeg(at(a), at(b))) * EARTH_KM;
}

/** The places that an exposure can come from: the header's, else where all its rigs were last used, else any. */
function placesFor(
  facts: ExposureFacts,
  rigs: readonly BookableRig[],
  places: readonly BookablePlace[],
): readonly BookablePlace[] {
  const { site } = facts;
  if (site) {
    const near = places
      .map((p) => ({ p, km: kmApart(p.place, site) }))
      .filter((x) => x.km <= SAME_PLACE_KM)
      .sort((a, b) => a.km - b.km);
    if (near[0]) return [near[0].p];
  }
  if (places.length <= 1) return places;
  const last = [...new Set(rigs.map((r) => r.lastPlaceId))];
  const known = last.length === 1 ? places.find((p) => p.id === last[0]) : undefined;
  return known ? [known] : places;
}

function mismatchesOf(facts: ExposureFacts, match: Match, { rig }: BookableRig, channel: Channel): Mismatch[] {
  const { goals } = match.candidate;
  const found: Mismatch[] = [];
  const tell = (code: Mismatch["code"], is: number | string, wanted: number | string) =>
    found.push({ code, found: is, wanted });
  if (facts.solutionFault) tell("solution", facts.solutionFault.found, "");
  if (facts.positionAngleDeg !== null) {
    const turn = turnTo(facts.positionAngleDeg, match.panelAngleDeg);
    if (Math.abs(turn) > 1) tell("rotation", facts.positionAngleDeg, match.panelAngleDeg);
  }
  if (facts.isSolved && match.offDeg > opticsOf(match.candidate.frameRig).fieldHeightDeg * 0.05)
    tell("pointing", match.offDeg * 60, 0);
  const focal = rig.focalLengthMm * rig.reducerFactor;
  if (facts.focalLengthMm !== null && Math.abs(facts.focalLengthMm / focal - 1) > 0.02)
    tell("focalLength", facts.focalLengthMm, focal);
  if (facts.camera !== null && rig.cameraName !== "" && !sameName(facts.camera, rig.cameraName))
    tell("camera", facts.camera, rig.cameraName);
  if (facts.binning !== null && facts.binning !== rig.sensor.binning)
    tell("binning", facts.binning, rig.sensor.binning);
  if (rig.isCooled && facts.temperatureC !== null && Math.abs(facts.temperatureC - rig.workingTempC) > 1)
    tell("temperature", facts.temperatureC, rig.workingTempC);
  const mine = goals?.channels.filter((g) => g.channel === channel) ?? [];
  if (mine.length === 0) tell("notPlanned", 0, 0);
  else if (mine.every((g) => g.subSec !== facts.exposureSec)) tell("exposure", facts.exposureSec ?? 0, mine[0]!.subSec);
  return found;
}

/**
 * Books one exposure by its header: the rig by scale, camera and filter; the project and panel by where it points (else by the
 * object's name), then by rig and channel; the place by its coordinates, else where that rig was last used. Never by what the
 * project says. Where several answers are left and nobody has said which, it asks. Says what does not agree, and refuses, with the
 * reason, what it cannot place.
 */
export function bookExposure(
  facts: ExposureFacts,
  context: BookingContext,
  answerTo: (key: string) => BookingAnswer | undefined = () => undefined,
): Result<Booking | BookingQuestion, BookingFault> {
  const { frameType, startMs, exposureSec } = facts;
  if (frameType === "unknown") return err({ code: "notALight", found: "" });
  if (exposureSec === null && frameType !== "bias") return err({ code: "noExposure", found: "" });
  if (frameType !== "light")
    return ok({
      kind: "calibration",
      data: {
        type: frameType,
        memberId: context.memberId,
        camera: facts.camera ?? "",
        exposureSec: exposureSec ?? 0,
        gain: facts.gain,
        temperatureC: facts.temperatureC,
        filter: facts.filter ?? "",
        startMs,
        fileName: facts.fileName,
        ...(facts.offset === null ? {} : { offset: facts.offset }),
        ...(facts.binning === null ? {} : { binning: facts.binning }),
        ...((facts.rotatorDeg ?? facts.positionAngleDeg) === null
          ? {}
          : { positionAngleDeg: (facts.rotatorDeg ?? facts.positionAngleDeg)! }),
      },
    });
  if (startMs === null && facts.wallMs === null) return err({ code: "noStart", found: "" });
  const rigs = rigsFor(facts, context.rigs);
  if (rigs.length === 0) return err({ code: "noRig", found: facts.camera ?? "" });
  const channels = [...new Set(rigs.map((r) => channelIn(facts, r)))];
  const known = channels.filter((c): c is Channel => c !== null);
  if (known.length === 0)
    return err(
      facts.filter === null ? { code: "noFilter", found: "" } : { code: "unknownFilter", found: facts.filter },
    );
  const byPointing = matchesByPointing(facts, context.projects);
  const byName = byPointing.length > 0 ? byPointing : matchesByName(facts, context.projects);
  // A camera that says neither what nor where: any project of its rig it can be, and that is told.
  const isSilent = facts.centre === null && facts.object === null && byName.length === 0;
  const ofRigs = isSilent ? unpointed(facts, context.projects).filter((m) => rigs.some((r) => r.id === m.candidate.rigId)) : []; // prettier-ignore
  const matches = isSilent ? ofRigs : byName;
  if (matches.length === 0)
    return err(
      facts.centre || facts.object
        ? { code: "noProject", found: facts.object ?? "" }
        : { code: "noPointing", found: "" },
    );
  const open = projectsFor(facts, matches, rigs, known.length === 1 ? known[0]! : null);
  // A rig that one of the projects is shot with goes before others that explain the header as well.
  const ofProject = rigs.filter((r) => open.length === 1 && r.id === open[0]!.candidate.rigId);
  const rigsLeft = ofProject.length > 0 ? ofProject : rigs;
  const placesLeft = placesFor(facts, rigsLeft, context.places);
  if (placesLeft.length === 0) return err({ code: "noPlace", found: "" });
  const options = {
    projects: open.map((m) => m.candidate.id),
    rigs: rigsLeft.map((r) => r.id),
    places: placesLeft.map((p) => p.id),
  };
  const key = JSON.stringify([options, facts.object, facts.filter, facts.camera]);
  const said = answerTo(key) ?? {};
  const match = only(open, (m) => m.candidate.id === said.projectId);
  const rig = only(rigsLeft, (r) => r.id === said.rigId);
  const place = only(placesLeft, (p) => p.id === said.placeId);
  const channel = rig ? channelIn(facts, rig) : null;
  if (!match || !rig || !place)
    return ok({
      kind: "question",
      key,
      ...options,
      object: facts.object ?? "",
      channel: known[0] ?? null,
      exposureSec: exposureSec!,
    });
  if (channel === null) return err({ code: "unknownFilter", found: facts.filter ?? "" });
  const start = startMs ?? instantOfWall(facts.wallMs!, place.place.timeZone);
  const mismatches = mismatchesOf(facts, match, rig, channel);
  return ok({
    kind: "light",
    projectName: match.candidate.project.name,
    mismatches: isSilent ? [...mismatches, { code: "noPointing", found: "", wanted: "" }] : mismatches,
    data: {
      projectId: match.candidate.id,
      panel: match.panel,
      frameId: match.candidate.frameId,
      channel,
      night: nightOf(place.place, start),
      memberId: context.memberId,
      rigId: rig.id,
      placeId: place.id,
      exposureSec: exposureSec!,
      taken: 1,
      kept: 1,
      reason: "",
      worthRate: null,
      startMs: start,
      fileName: facts.fileName,
      note: "",
      ...(facts.centre
        ? {
            at: {
              raDeg: facts.centre.raDeg,
              decDeg: facts.centre.decDeg,
              positionAngleDeg: facts.positionAngleDeg,
            },
          }
        : {}),
      ...(facts.gain === null ? {} : { gain: facts.gain }),
      ...(facts.offset === null ? {} : { offset: facts.offset }),
      ...(facts.binning === null ? {} : { binning: facts.binning }),
      ...(facts.temperatureC === null ? {} : { temperatureC: facts.temperatureC }),
      ...(facts.measure === null ? {} : { measure: facts.measure }),
    },
  });
}

/** The one that is left, or the one that somebody has chosen; undefined while both are open. */
const only = <T>(left: readonly T[], isChosen: (t: T) => boolean): T | undefined =>
  left.length === 1 ? left[0] : left.find(isChosen);

/** The channel of a header with a rig: of its filter, or the bare colour camera's. */
const channelIn = (facts: ExposureFacts, { rig, filters }: BookableRig): Channel | null =>
  facts.filter === null ? (rig.isColour ? "Colour" : null) : channelOfFilter(facts.filter, filters);
