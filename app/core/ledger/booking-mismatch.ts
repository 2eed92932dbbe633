import type { Channel } from "~/core/exposure";
import { positionAngleDeg } from "~/core/sky";
import { turnTo } from "~/core/units";
import type { BookableRig, Mismatch } from "./booking-context";
import type { Match } from "./booking-match";
import { sameName } from "./booking-rig";
import type { ExposureFacts } from "./exposure-facts";

/** So far off a panel's centre, of its field's height, a file is told of; dithers and a mount's own spread stay below it. */
const OFF_FIELDS = 0.025;
/** And so far, arcminutes, where it is turned as well: then what one sees is both. */
const OFF_ARCMIN = 1;

/** What of a header does not agree with the panel and the rig that it was placed with. */
export function mismatchesOf(facts: ExposureFacts, match: Match, { rig }: BookableRig, channel: Channel): Mismatch[] {
  const { goals } = match.of.candidate;
  const found: Mismatch[] = [];
  const tell = (code: Mismatch["code"], is: number | string, wanted: number | string) =>
    found.push({ code, found: is, wanted });
  if (facts.solutionFault) tell("solution", facts.solutionFault.found, "");
  if (facts.positionAngleDeg !== null) {
    const turn = turnTo(facts.positionAngleDeg, match.panelAngleDeg);
    if (Math.abs(turn) > 1) tell("rotation", facts.positionAngleDeg, match.panelAngleDeg);
  }
  const leastDeg = found.some((m) => m.code === "rotation") ? OFF_ARCMIN / 60 : OFF_FIELDS * match.of.fieldHeightDeg;
  if (facts.isSolved && facts.centre && match.offDeg > leastDeg)
    tell("pointing", match.offDeg * 60, positionAngleDeg(match.panelCentre, facts.centre));
  const focal = rig.focalLengthMm * rig.reducerFactor;
  if (facts.focalLengthMm !== null && Math.abs(facts.focalLengthMm / focal - 1) > 0.02)
    tell("focalLength", facts.focalLengthMm, focal);
  const pitch = facts.pixelPitchUm;
  // Some programs write the pitch of the binned pixel.
  const isPitch = (n: number) => Math.abs(pitch! / (rig.sensor.pixelPitchUm * n) - 1) <= 0.02;
  if (pitch !== null && ![1, 2, 3, 4].some(isPitch)) tell("pixels", pitch, rig.sensor.pixelPitchUm);
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
