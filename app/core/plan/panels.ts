import type { ProjectData } from "./project";

/** What is left of a panel in one channel, in whole subs. */
export interface PanelNeed {
  readonly panel: string;
  /** Share of its goal that is done, [0, 1]. */
  readonly done: number;
  readonly subs: number;
}

/** Subs of one panel. */
export interface PanelShare {
  readonly panel: string;
  readonly subs: number;
}

const MIN_BLOCK_MIN = 10; // shorter blocks cost more in centring than they bring

/**
 * Deals the subs that a stretch has room for to the panels of a channel by the school: weakest first and evenly, or all to the first
 * until it is done, be that the first in order or the first that goes down (`setsMs`). No panel gets more than it wants. What all
 * panels want together may be less than there is room for.
 */
export function dealPanels(
  needs: readonly PanelNeed[],
  room: number,
  subMin: number,
  school: ProjectData["school"],
  setsMs: (panel: string) => number = () => 0,
): PanelShare[] {
  const open = needs.filter((n) => n.subs > 0);
  const isEven = school === "allPanelsEveryNight";
  const ordered = isEven
    ? [...open].sort((a, b) => a.done - b.done || a.panel.localeCompare(b.panel, "en", { numeric: true }))
    : school === "sinkingFirst"
      ? [...open].sort((a, b) => setsMs(a.panel) - setsMs(b.panel))
      : open;
  const most = isEven
    ? Math.max(1, Math.min(ordered.length, Math.floor((room * subMin) / MIN_BLOCK_MIN)))
    : ordered.length;
  let left = room;
  const shares = ordered.slice(0, most).map((need, i) => {
    const subs = Math.min(need.subs, isEven ? Math.floor(left / (most - i)) : left);
    left -= subs;
    return { panel: need.panel, subs };
  });
  // What whole subs leave over goes to whoever still wants some, in order.
  for (let again = true; again && left > 0;) {
    again = false;
    for (const [i, share] of shares.entries()) {
      if (left <= 0 || share.subs >= ordered[i]!.subs) continue;
      shares[i] = { ...share, subs: share.subs + 1 };
      left--;
      again = true;
    }
  }
  return shares.filter((s) => s.subs > 0);
}
