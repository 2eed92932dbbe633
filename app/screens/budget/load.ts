import { starAt, starsWithin, type SkyData } from "~/core/catalog";
import type { Channel } from "~/core/exposure";
import { mosaicExtent, skyToFrame, type MosaicLayout } from "~/core/framing";
import { nightOffer } from "~/core/plan";
import { skyData } from "~/desk/chart-sky";
import { choiceOf } from "~/desk/choice";
import { nightOver } from "~/desk/nights";
import { libraryHere } from "~/desk/open-library";
import { requireContext } from "~/desk/project";
import { findTarget } from "~/desk/targets";

/** Magnitudes of the catalogue's stars inside a mosaic. */
function starsInside(sky: SkyData, layout: MosaicLayout): number[] {
  const extent = mosaicExtent(layout);
  return starsWithin(sky.stars, {
    ...layout.centre,
    radiusDeg: Math.hypot(extent.widthArcmin, extent.heightArcmin) / 110,
    faintest: 14,
  }).flatMap((row) => {
    const star = starAt(sky.stars.stars, row);
    const p = skyToFrame(layout, star.at);
    return p && Math.abs(p.xArcmin) < extent.widthArcmin / 2 && Math.abs(p.yArcmin) < extent.heightArcmin / 2
      ? [star.magnitude]
      : [];
  });
}

/** What a budget is made from: goals, rig, sky, and what the chosen night offers. */
export async function loadBudget(request: Request, projectId: string) {
  const library = await libraryHere();
  const c = requireContext(library, projectId);
  const { night } = choiceOf(library, new URL(request.url).searchParams);
  const channels = c.filters.map((f) => f.data.channel);
  const [entry, sky] = await Promise.all([
    findTarget(library, c.project.data.targetId).catch(() => null),
    skyData().catch(() => null),
  ]);
  return {
    goal: c.goal,
    rig: c.rig.data,
    place: c.place.data,
    filters: c.filters,
    panels: c.panels.length,
    offer: nightOffer(nightOver(c.place.data, night, c.moon), c.layout.centre, channels),
    hoursMin: entry?.curated?.hoursMin ?? null,
    /** Kept so far, mean over the panels, by channel. */
    keptHours: Object.fromEntries(
      channels.map((channel) => {
        const mine = c.cells.filter((cell) => cell.channel === channel);
        return [channel, mine.reduce((sum, cell) => sum + cell.keptMin, 0) / 60 / Math.max(1, c.panels.length)];
      }),
    ) as Readonly<Partial<Record<Channel, number>>>,
    starMags: sky ? starsInside(sky, c.layout) : null,
  };
}
