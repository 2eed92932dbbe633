import { useMemo } from "react";
import type { SkyData } from "~/core/catalog";
import { mosaicExtent, starsInSeams, type MosaicLayout } from "~/core/framing";
import { namedStarsNear } from "./use-chart-data";

/** Named stars around a mosaic down to a magnitude, and those in its seams, brightest first. */
export function useFrameStars(sky: SkyData | null, layout: MosaicLayout, panelCount: number, faintest: number) {
  const { raDeg, decDeg } = layout.centre;
  const { widthArcmin, heightArcmin } = mosaicExtent(layout);
  // Half the diagonal, and half a panel more: as far as the search may shift it.
  const side = Math.max(layout.planeWidthArcmin, layout.planeHeightArcmin);
  const radiusDeg = Math.min(40, (Math.hypot(widthArcmin, heightArcmin) + side) / 120);
  const near = useMemo(
    () => (sky && panelCount > 1 ? namedStarsNear(sky, { raDeg, decDeg, radiusDeg, faintest }) : []),
    [sky, panelCount, raDeg, decDeg, radiusDeg, faintest],
  );
  const seams = useMemo(() => starsInSeams(layout, near), [layout, near]);
  const seamStars = useMemo(() => seams.map((s) => s.star), [seams]);
  return { near, seams, seamStars };
}
