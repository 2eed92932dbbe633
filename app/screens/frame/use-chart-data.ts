import { useDesk } from "~/at-desk";
import type { SkyData } from "~/core/catalog";
import { useCallback, useEffect, useState } from "react";
import type { NamedStar } from "./SeamReport";
import { gazeRadiusDeg, type Gaze } from "~/components/sky-chart/SkyChart";
import { starName } from "~/drawing";
import { starAt, starsWithin, type CatalogEntry } from "~/core/catalog";
import { skyData } from "~/desk/sky/chart-sky";

const ASK_AFTER_MS = 80; // while the chart is dragged, only where it rests is asked for
const MOST_OBJECTS = 400;

/** Stars, figures, and the objects in view, for a chart; why some of it did not come, and the way to ask again. */
export function useChartData(gaze: Gaze): {
  readonly sky: SkyData | null;
  readonly objects: readonly CatalogEntry[];
  /** "" when all came. */
  readonly fault: string;
  readonly again: () => void;
} {
  const desk = useDesk();
  const [sky, setSky] = useState<SkyData | null>(null);
  const [objects, setObjects] = useState<readonly CatalogEntry[]>([]);
  const [fault, setFault] = useState("");
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    let isCurrent = true;
    skyData(desk).then(
      (s) => isCurrent && setSky(s),
      (error: unknown) => isCurrent && setFault(`The stars could not be loaded: ${messageOf(error)}.`),
    );
    return () => {
      isCurrent = false;
    };
  }, [desk, turn]);
  useEffect(() => {
    let isCurrent = true;
    const { raDeg, decDeg } = gaze.centre;
    const ask = () =>
      void desk.workers.sky.within({ raDeg, decDeg, radiusDeg: gazeRadiusDeg(gaze), limit: MOST_OBJECTS }).then(
        (found) => isCurrent && setObjects(found),
        (error: unknown) => isCurrent && setFault(`The catalogue could not be loaded: ${messageOf(error)}.`),
      );
    const timer = setTimeout(ask, ASK_AFTER_MS);
    return () => {
      isCurrent = false;
      clearTimeout(timer);
    };
  }, [desk, gaze, turn]);
  const again = useCallback(() => {
    setFault("");
    setTurn((t) => t + 1);
  }, []);
  return { sky, objects, fault, again };
}

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

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
