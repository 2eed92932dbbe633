import { BORNE_TRAIL_PX } from "~/core/exposure";
import { fixed } from "~/components/numbers";
import {
  guidingVerdict,
  LOST_CAUSES,
  polarDriftArcsec,
  polarTotal,
  type LostCause,
  type NightFacts,
  type NightMeasure,
} from "~/core/ledger";
import { formatMinutes } from "~/core/notation";
import { turnTo, wrap360 } from "~/core/units";
import type { FactsView } from "./load";

/** What a measure of nights is called, and its unit. */
export const MEASURE_WORDS: Readonly<
  Record<NightMeasure, { readonly name: string; readonly unit: string; readonly digits: number }>
> = {
  seeingArcsec: { name: "Seeing, FWHM", unit: "″", digits: 1 },
  transparency: { name: "Transparency, 1 to 5", unit: "", digits: 0 },
  guiding: { name: "Guiding RMS, both axes", unit: "″", digits: 2 },
  polar: { name: "Error of the polar axis", unit: "′", digits: 1 },
  cameraAngleDeg: { name: "Camera angle", unit: "°", digits: 1 },
  airC: { name: "Air", unit: "°C", digits: 1 },
  windKmh: { name: "Wind at the mount", unit: "km/h", digits: 0 },
  focusMoves: { name: "Focus moved", unit: "steps", digits: 0 },
};

const GRADES = {
  good: "good: under half a pixel",
  fair: "fair: under a pixel",
  poor: "poor: over a pixel, stars get wider",
};
const ROUND_RATIO = 1.3; // common practice, no source
const SEEN = 0.45; // eccentricity that shows; common practice, no source

/** What guiding came to, against the pixels of the rig; "" where it was not written down. */
export function guidingWords(f: NightFacts, scaleArcsec: number): string {
  const v = guidingVerdict(f, scaleArcsec);
  if (!v) return "";
  const uneven =
    v.ratio > ROUND_RATIO
      ? ` One axis is ${fixed(v.ratio, 1)} times the other${v.eccentricity !== null && v.eccentricity > SEEN ? `: stars grow long, eccentricity ${fixed(v.eccentricity, 2)}` : ""}.`
      : "";
  return `Guiding ${fixed(v.totalArcsec, 2)}″ in all, ${fixed(v.ofPixel, 2)} pixel at ${fixed(scaleArcsec, 2)} ″/px, ${GRADES[v.grade]}.${uneven}`;
}

/** What the polar error came to in a sub; "" where it was not written down. */
export function polarWords(
  f: NightFacts,
  latitudeDeg: number,
  rig: { readonly subSec: number; readonly isGuided: boolean; readonly scaleArcsec: number },
): string {
  const { subSec } = rig;
  const error = polarTotal(f, latitudeDeg);
  if (error === null) return "";
  const drift = polarDriftArcsec(error, subSec);
  const off = `Polar axis off by ${fixed(error, 1)}′: up to ${fixed(drift, 1)}″ of drift in a sub of ${subSec} s`;
  if (rig.isGuided) return `${off}, which guiding takes; the field turns all the same.`;
  const px = drift / rig.scaleArcsec;
  return `${off}, and nothing guides it away: stars trail ${fixed(px, 1)} px${px > BORNE_TRAIL_PX ? `, more than the ${fixed(BORNE_TRAIL_PX, 1)} px that look round. Align better, or shoot under ${Math.max(1, Math.floor((subSec * BORNE_TRAIL_PX) / px))} s` : ""}.`;
}

/** What took time from a night. */
export const LOST_WORDS = {
  cloud: "cloud",
  wind: "wind",
  dew: "dew or frost",
  kit: "kit that failed",
  guiding: "guiding, focus",
  lateStart: "a late start",
  other: "other things",
} as const satisfies Readonly<Record<LostCause, string>>;

/** "7 h 00 programmed, 4 h 10 taken, 3 h 20 kept. Lost: 2 h 00 to cloud …", as far as it is known. */
export function timeWords(
  { programmedMin, lost = {} }: Pick<NightFacts, "programmedMin" | "lost">,
  { takenMin, keptMin }: { readonly takenMin: number; readonly keptMin: number },
): string {
  const parts = [
    ...(programmedMin === undefined ? [] : [`${formatMinutes(programmedMin)} programmed`]),
    ...(takenMin > 0 ? [`${formatMinutes(takenMin)} taken`, `${formatMinutes(keptMin)} kept`] : []),
  ];
  const causes = LOST_CAUSES.flatMap((c) => (lost[c] ? [`${formatMinutes(lost[c])} to ${LOST_WORDS[c]}`] : []));
  const told = LOST_CAUSES.reduce((sum, c) => sum + (lost[c] ?? 0), 0);
  const untold = programmedMin === undefined ? 0 : programmedMin - takenMin - told;
  if (untold > 1) causes.push(`${formatMinutes(untold)} nobody says to what`);
  const first = parts.length > 0 ? `${parts.join(", ")}.` : "";
  return [first, causes.length > 0 ? `Lost: ${causes.join(", ")}.` : ""].filter((w) => w !== "").join(" ");
}

/** How far a camera stands off the frames it exposed for, by the turn that is shorter; "" where it stands as it should. */
export function angleWords(angleDeg: number, frames: FactsView["frames"]): string {
  return frames
    .flatMap(({ name, angleDeg: wanted }) => {
      const turn = turnTo(angleDeg, wanted);
      return Math.abs(turn) > 1
        ? `${fixed(Math.abs(turn), 0)}° ${turn > 0 ? "east" : "west"} of the angle of ${name} (${fixed(wrap360(wanted), 0)}°, or half a turn from it).`
        : [];
    })
    .join(" ");
}
