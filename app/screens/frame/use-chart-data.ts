import type { SkyData } from "~/core/catalog";
import { useEffect, useState } from "react";
import type { NamedStar } from "./SeamReport";
import { gazeRadiusDeg, type Gaze } from "~/components/sky-chart/SkyChart";
import { starName } from "~/components/sky-chart/layers";
import { starAt, starsWithin, type CatalogEntry } from "~/core/catalog";
import { skyWorker } from "~/workers/sky";
import { skyData } from "~/desk/chart-sky";

const ASK_AFTER_MS = 80; // while the chart is dragged, only where it rests is asked for
const MOST_OBJECTS = 400;

/** Stars, figures, and the objects in view, for a chart. */
export function useChartData(gaze: Gaze): { readonly sky: SkyData | null; readonly objects: readonly CatalogEntry[] } {
  const [sky, setSky] = useState<SkyData | null>(null);
  const [objects, setObjects] = useState<readonly CatalogEntry[]>([]);
  useEffect(() => {
    let isCurrent = true;
    void skyData().then((s) => isCurrent && setSky(s));
    return () => {
      isCurrent = false;
    };
  }, []);
  useEffect(() => {
    let isCurrent = true;
    const { raDeg, decDeg } = gaze.centre;
    const ask = () =>
      void skyWorker()
        .within({ raDeg, decDeg, radiusDeg: gazeRadiusDeg(gaze), limit: MOST_OBJECTS })
        .then((found) => isCurrent && setObjects(found));
    const timer = setTimeout(ask, ASK_AFTER_MS);
    return () => {
      isCurrent = false;
      clearTimeout(timer);
    };
  }, [gaze]);
  return { sky, objects };
}

/** Stars around a direction down to a magnitude, each with its name or Hipparcos number. */
export function namedStarsNear(
  sky: SkyData,
  at: { readonly raDeg: number; readonly decDeg: number; readonly radiusDeg: number; readonly faintest: number },
): NamedStar[] {
  return starsWithin(sky.stars, at).map((row) => {
    const star = starAt(sky.stars.stars, row);
    return { ...star.at, magnitude: star.magnitude, name: starName(sky, row) };
  });
}
