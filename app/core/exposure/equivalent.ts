import { magToFluxRatio } from "~/core/units";
import type { BesideSky } from "./light-rates";

/**
 * What one hour there is in hours here, with the same rig on the same object, each at its own zenith: (O + S here + rest)/(O + S there
 * + rest). `own` = what the rig sees beside the sky here; without it the sky alone decides, 10^(0.4 (μ there − μ here)), which
 * overstates a dark night for bright objects and for narrow bands limited by reading. Detail is not in it. MATHS 4.4.
 */
export function equivalentHours(
  thereMagPerArcsec2: number,
  hereMagPerArcsec2: number,
  own: BesideSky = { object: 0, rest: 0 },
): number {
  const skyThere = magToFluxRatio(thereMagPerArcsec2 - hereMagPerArcsec2);
  return (own.object + 1 + own.rest) / (own.object + skyThere + own.rest);
}
