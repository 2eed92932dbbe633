import type { Channel, Filter, Rig } from "~/core/exposure";
import { opticsOf, panelName } from "~/core/framing";
import { searchKey } from "~/core/catalog";
import type { Place } from "~/core/night";
import { layoutOf, panelsOf, type FrameData, type GoalData, type ProjectData } from "~/core/plan";
import { err, ok, type Result } from "~/core/result";
import { separationDeg } from "~/core/sky";
import { nightOf } from "~/core/sky";
import type { CalibrationData, ContributionData } from "./contribution";
import type { ExposureFacts } from "./exposure-facts";
import { channelOfFilter } from "./filter-name";

/** A project with what booking needs to know of it. */
export interface BookableProject {
  readonly id: string;
  readonly project: ProjectData;
  readonly frame: FrameData;
  readonly goals: GoalData | null;
  readonly rig: Rig;
  readonly place: Place;
  readonly filters: readonly Filter[];
  /** Names the target goes by. */
  readonly targetNames: readonly string[];
}

/** Whose files they are, and what they can belong to. */
export interface BookingContext {
  readonly memberId: string;
  readonly projects: readonly BookableProject[];
}

/** Something in the header that does not agree with the plan; the exposure is booked all the same. */
export interface Mismatch {
  readonly code: "rotation" | "pointing" | "focalLength" | "exposure" | "temperature" | "notPlanned";
  readonly found: number;
  readonly wanted: number;
}

/** Why an exposure could not be booked. */
export interface BookingFault {
  readonly code: "notALight" | "noStart" | "noExposure" | "noFilter" | "unknownFilter" | "noPointing" | "noProject";
  /** The header's own value, where there is one. */
  readonly found: string;
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

interface Match {
  readonly candidate: BookableProject;
  readonly panel: string;
  readonly offDeg: number;
  readonly panelAngleDeg: number;
}

/** The panel whose centre is nearest to where the header points, if that lies in its frame. */
function matchByPointing(facts: ExposureFacts, projects: readonly BookableProject[]): Match | null {
  const { centre } = facts;
  if (!centre) return null;
  const matches = projects.flatMap((candidate) => {
    const optics = opticsOf(candidate.rig);
    const layout = layoutOf(candidate.frame, optics);
    const reach = Math.min(layout.planeWidthArcmin, layout.planeHeightArcmin) / 120;
    return panelsOf(candidate.frame, optics)
      .map((p) => ({
        candidate,
        panel: panelName(p.number),
        offDeg: separationDeg(p.centre, centre),
        panelAngleDeg: p.positionAngleDeg,
      }))
      .filter((m) => m.offDeg <= reach);
  });
  return matches.sort((a, b) => a.offDeg - b.offDeg)[0] ?? null;
}

/** A project whose target is named as the header's object, if it has one panel only. */
function matchByName(facts: ExposureFacts, projects: readonly BookableProject[]): Match | null {
  if (facts.object === null) return null;
  const key = searchKey(facts.object);
  const found = projects.find(
    (p) => panelsOf(p.frame, opticsOf(p.rig)).length === 1 && p.targetNames.some((n) => searchKey(n) === key),
  );
  return found
    ? {
        candidate: found,
        panel: panelName(panelsOf(found.frame, opticsOf(found.rig))[0]!.number),
        offDeg: 0,
        panelAngleDeg: found.frame.positionAngleDeg,
      }
    : null;
}

function mismatchesOf(facts: ExposureFacts, match: Match, channel: Channel): Mismatch[] {
  const { rig, goals } = match.candidate;
  const found: Mismatch[] = [];
  if (facts.positionAngleDeg !== null) {
    const turn = ((((facts.positionAngleDeg - match.panelAngleDeg + 90) % 180) + 180) % 180) - 90;
    if (Math.abs(turn) > 1)
      found.push({ code: "rotation", found: facts.positionAngleDeg, wanted: match.panelAngleDeg });
  }
  if (facts.isSolved && match.offDeg > opticsOf(rig).fieldHeightDeg * 0.05)
    found.push({ code: "pointing", found: match.offDeg * 60, wanted: 0 });
  const focal = rig.focalLengthMm * rig.reducerFactor;
  if (facts.focalLengthMm !== null && Math.abs(facts.focalLengthMm / focal - 1) > 0.02)
    found.push({ code: "focalLength", found: facts.focalLengthMm, wanted: focal });
  if (rig.isCooled && facts.temperatureC !== null && Math.abs(facts.temperatureC - rig.workingTempC) > 1)
    found.push({ code: "temperature", found: facts.temperatureC, wanted: rig.workingTempC });
  const goal = goals?.channels.find((g) => g.channel === channel);
  if (!goal) found.push({ code: "notPlanned", found: 0, wanted: 0 });
  else if (facts.exposureSec !== goal.subSec)
    found.push({ code: "exposure", found: facts.exposureSec ?? 0, wanted: goal.subSec });
  return found;
}

/**
 * Books one exposure by its header: to the project and panel it points into (else to the one its object names), to the
 * channel of its filter, to the night of its start at the project's place. Says what does not agree, and refuses, with
 * the reason, what it cannot place.
 */
export function bookExposure(facts: ExposureFacts, context: BookingContext): Result<Booking, BookingFault> {
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
      },
    });
  if (startMs === null) return err({ code: "noStart", found: "" });
  const match = matchByPointing(facts, context.projects) ?? matchByName(facts, context.projects);
  if (!match)
    return err(
      facts.centre || facts.object
        ? { code: "noProject", found: facts.object ?? "" }
        : { code: "noPointing", found: "" },
    );
  const { candidate } = match;
  if (facts.filter === null && !candidate.rig.isColour) return err({ code: "noFilter", found: "" });
  const channel = facts.filter === null ? "Colour" : channelOfFilter(facts.filter, candidate.filters);
  if (channel === null) return err({ code: "unknownFilter", found: facts.filter ?? "" });
  return ok({
    kind: "light",
    projectName: candidate.project.name,
    mismatches: mismatchesOf(facts, match, channel),
    data: {
      projectId: candidate.id,
      panel: match.panel,
      channel,
      night: nightOf(candidate.place, startMs),
      memberId: context.memberId,
      rigId: candidate.project.rigId,
      placeId: candidate.project.placeId,
      exposureSec: exposureSec!,
      taken: 1,
      kept: 1,
      reason: "",
      worthRate: null,
      startMs,
      fileName: facts.fileName,
      note: "",
    },
  });
}
