import type { Need, ProjectData } from "./project";

/** Exposure of one panel, in clock minutes. */
export interface PanelShare {
  readonly panel: string;
  readonly exposureMin: number;
}

const MIN_BLOCK_MIN = 10; // shorter blocks cost more in centring than they bring

/**
 * Deals the exposure of a stretch to the panels of a channel by the school: weakest first and evenly, or all to the first until it is
 * done, be that the first in order or the first that goes down (`setsMs`). `rate` is what a minute of exposure counts towards a goal. What all panels need together may be less than there is.
 */
export function dealPanels(
  needs: readonly Need[],
  left: ReadonlyMap<Need, number>,
  exposureMin: number,
  rate: number,
  school: ProjectData["school"],
  setsMs: (panel: string) => number = () => 0,
): PanelShare[] {
  const leftOf = (n: Need) => left.get(n) ?? n.remainingMin;
  const share = (n: Need) => 1 - leftOf(n) / Math.max(1, n.goalMin);
  const open = needs.filter((n) => leftOf(n) > 0.5);
  const isEven = school === "allPanelsEveryNight";
  const ordered = isEven
    ? [...open].sort((a, b) => share(a) - share(b) || a.panel.localeCompare(b.panel, "en", { numeric: true }))
    : school === "sinkingFirst"
      ? [...open].sort((a, b) => setsMs(a.panel) - setsMs(b.panel))
      : open;
  const most = isEven ? Math.max(1, Math.min(ordered.length, Math.floor(exposureMin / MIN_BLOCK_MIN))) : ordered.length;
  let budget = exposureMin;
  return ordered.slice(0, most).flatMap((need, i) => {
    const minutes = Math.min(leftOf(need) / Math.max(rate, 0.05), isEven ? budget / (most - i) : budget);
    if (minutes < 0.5) return [];
    budget -= minutes;
    return [{ panel: need.panel, exposureMin: minutes }];
  });
}
