import type { Channel } from "~/core/exposure";
import { err, ok, type Result } from "~/core/result";
import { nightOf } from "~/core/sky";
import { instantOfWall } from "~/core/time";
import type { Booking, BookingAnswer, BookingContext, BookingFault, BookingQuestion } from "./booking-context";
import { drawn, matchesByName, matchesByPointing, projectsFor, unpointed, type DrawnProject } from "./booking-match";
import { mismatchesOf } from "./booking-mismatch";
import { placesFor } from "./booking-place";
import { channelIn, rigsFor } from "./booking-rig";
import type { CalibrationData } from "./contribution";
import type { ExposureFacts } from "./exposure-facts";

/** Books one exposure; `answerTo` what somebody said where headers left several answers, by the key of the question. */
export type Booker = (
  facts: ExposureFacts,
  answerTo?: (key: string) => BookingAnswer | undefined,
) => Result<Booking | BookingQuestion, BookingFault>;

/** A dark, flat or bias frame as it is written down. */
function calibrationOf(facts: ExposureFacts, type: CalibrationData["type"], memberId: string): CalibrationData {
  const { offset, binning } = facts;
  const positionAngleDeg = facts.rotatorDeg ?? facts.positionAngleDeg;
  return {
    type,
    memberId,
    camera: facts.camera ?? "",
    exposureSec: facts.exposureSec ?? 0,
    gain: facts.gain,
    temperatureC: facts.temperatureC,
    filter: facts.filter ?? "",
    startMs: facts.startMs,
    fileName: facts.fileName,
    ...(offset === null ? {} : { offset }),
    ...(binning === null ? {} : { binning }),
    ...(positionAngleDeg === null ? {} : { positionAngleDeg }),
    ...(facts.isSimulated ? { isSimulated: true } : {}),
  };
}

/**
 * Books exposures by their headers: the rig by scale, camera and filter; the project and panel by where it points (else by the
 * object's name), then by rig and channel; the place by its coordinates, else where that rig was last used. Never by what the
 * project says. Where several answers are left and nobody has said which, it asks. Says what does not agree, and refuses, with the
 * reason, what it cannot place. Frames are worked out once for all of them.
 */
export function exposureBooker(context: BookingContext): Booker {
  const projects = context.projects.map(drawn);
  return (facts, answerTo = () => undefined) => booked(facts, context, projects, answerTo);
}

function booked(
  facts: ExposureFacts,
  context: BookingContext,
  projects: readonly DrawnProject[],
  answerTo: (key: string) => BookingAnswer | undefined,
): Result<Booking | BookingQuestion, BookingFault> {
  const { frameType, startMs, exposureSec } = facts;
  if (frameType === "unknown") return err({ code: "notALight", found: "" });
  if (exposureSec === null && frameType !== "bias") return err({ code: "noExposure", found: "" });
  if (frameType !== "light")
    return ok({ kind: "calibration", data: calibrationOf(facts, frameType, context.memberId) });
  if (startMs === null && facts.wallMs === null) return err({ code: "noStart", found: "" });
  const rigs = rigsFor(facts, context.rigs);
  if (rigs.length === 0) return err({ code: "noRig", found: facts.camera ?? "" });
  const channels = [...new Set(rigs.map((r) => channelIn(facts, r)))];
  const known = channels.filter((c): c is Channel => c !== null);
  if (known.length === 0)
    return err(
      facts.filter === null ? { code: "noFilter", found: "" } : { code: "unknownFilter", found: facts.filter },
    );
  const byPointing = matchesByPointing(facts, projects);
  const byName = byPointing.length > 0 ? byPointing : matchesByName(facts, projects);
  // A camera that says neither what nor where: any project of its rig it can be, and that is told.
  const isSilent = facts.centre === null && facts.object === null && byName.length === 0;
  const ofRigs = isSilent
    ? unpointed(facts, projects).filter((m) => rigs.some((r) => r.id === m.of.candidate.rigId))
    : [];
  const matches = isSilent ? ofRigs : byName;
  if (matches.length === 0)
    return err(
      facts.centre || facts.object
        ? { code: "noProject", found: facts.object ?? "" }
        : { code: "noPointing", found: "" },
    );
  const open = projectsFor(facts, matches, rigs, known.length === 1 ? known[0]! : null);
  // A rig that one of the projects is shot with goes before others that explain the header as well.
  const ofProject = rigs.filter((r) => open.length === 1 && r.id === open[0]!.of.candidate.rigId);
  const rigsLeft = ofProject.length > 0 ? ofProject : rigs;
  const placesLeft = placesFor(facts, rigsLeft, context.places);
  if (placesLeft.length === 0) return err({ code: "noPlace", found: "" });
  const options = {
    projects: open.map((m) => m.of.candidate.id),
    rigs: rigsLeft.map((r) => r.id),
    places: placesLeft.map((p) => p.id),
  };
  const key = JSON.stringify([options, facts.object, facts.filter, facts.camera]);
  const said = answerTo(key) ?? {};
  const match = only(open, (m) => m.of.candidate.id === said.projectId);
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
    projectName: match.of.candidate.project.name,
    mismatches: isSilent ? [...mismatches, { code: "noPointing", found: "", wanted: "" }] : mismatches,
    data: {
      projectId: match.of.candidate.id,
      panel: match.panel,
      frameId: match.of.candidate.frameId,
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
      ...(facts.airC === undefined ? {} : { airC: facts.airC }),
      ...(facts.focusSteps === undefined ? {} : { focusSteps: facts.focusSteps }),
      ...(facts.isSimulated ? { isSimulated: true } : {}),
      ...(facts.measure === null ? {} : { measure: facts.measure }),
    },
  });
}

/** The one that is left, or the one that somebody has chosen; undefined while both are open. */
const only = <T>(left: readonly T[], isChosen: (t: T) => boolean): T | undefined =>
  left.length === 1 ? left[0] : left.find(isChosen);
