import { equivalentHours } from "~/core/exposure";
import { isAway, targetNight, type Place } from "~/core/night";
import { savesOf, type ProjectShare, type Save } from "~/core/season";
import { addNights, type NightDate } from "~/core/time";
import type { Library } from "~/desk/records/library";
import { nightOver } from "~/desk/sky/nights";
import { type ProjectContext } from "~/desk/projects/project";
import { ownUnder } from "~/desk/projects/weights";

const LOOKED_AT = [0, 4, 8, 12, 16, 20, 24]; // nights ahead: a round of the Moon
const LOWER_DEG = 10;
const LOWEST_DEG = 15; // below, a minute is worth less than a sixth (MATHS C6.4)

/** What the best night of the coming weeks counts for a project in a channel, if it is clear, minutes at its best. */
function bestNight(
  c: ProjectContext,
  place: Place,
  channel: (typeof c.needs)[number]["channel"],
  from: NightDate,
): number {
  const best = c.bestRates[channel] ?? 1;
  const nights = LOOKED_AT.map((n) =>
    targetNight(
      nightOver(c.desk, place, addNights(from, n), c.moon),
      c.layout.centre,
      channel,
      ownUnder(c, place)[channel],
    ),
  );
  return Math.max(...nights.map((n) => n.worthMin)) / best;
}

/** What would finish a project that the season does not: nights at the places one could drive to, less of the goal, a friend, a lower altitude. */
export function savesFor(library: Library, c: ProjectContext, share: ProjectShare, from: NightDate): Save[] {
  const channel = share.deciding?.channel;
  if (!channel || (share.odds?.doneShare ?? 1) >= 0.5) return [];
  const here = c.place.data;
  const goalMin = c.needs.reduce((sum, n) => sum + n.goalMin, 0);
  const elsewhere = library.places
    .filter((p) => p.id !== c.place.id && isAway(p.data))
    .map((p) => ({
      placeName: p.data.name,
      countsMin:
        bestNight(c, p.data, channel, from) *
        equivalentHours(p.data.skyMagPerArcsec2, here.skyMagPerArcsec2, c.own[channel]),
    }));
  const altitudeDeg = Math.max(LOWEST_DEG, here.minAltitudeDeg - LOWER_DEG);
  const lower =
    altitudeDeg < here.minAltitudeDeg
      ? {
          altitudeDeg,
          nowMin: bestNight(c, here, channel, from),
          thenMin: bestNight(c, { ...here, minAltitudeDeg: altitudeDeg }, channel, from),
        }
      : null;
  return savesOf(share, { goalMin, elsewhere, lower });
}
