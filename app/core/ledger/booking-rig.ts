import type { Channel } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import { ARCSEC_PER_RAD } from "~/core/units";
import type { BookableRig } from "./booking-context";
import type { ExposureFacts } from "./exposure-facts";
import { channelOfFilter } from "./filter-name";

const SCALE_TOLERANCE = 0.04; // focal length changes with back focus and temperature, reducers with both

/** Scale that a header implies, ″/px: from a solution, else from focal length, pixel and binning; null when it is silent. */
function scaleOf(facts: ExposureFacts): number | null {
  if (facts.pixelScaleArcsec !== null) return facts.pixelScaleArcsec;
  const { focalLengthMm, pixelPitchUm, binning } = facts;
  if (focalLengthMm === null || pixelPitchUm === null || !(focalLengthMm > 0)) return null;
  return ((ARCSEC_PER_RAD / 1000) * pixelPitchUm * (binning ?? 1)) / focalLengthMm;
}

/** Whether two texts name the same, whatever their case. */
export const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

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
export function rigsFor(facts: ExposureFacts, rigs: readonly BookableRig[]): readonly BookableRig[] {
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

/** The channel of a header with a rig: of its filter, or the bare colour camera's. */
export const channelIn = (facts: ExposureFacts, { rig, filters }: BookableRig): Channel | null =>
  facts.filter === null ? (rig.isColour ? "Colour" : null) : channelOfFilter(facts.filter, filters);
