import { opticsOf } from "~/core/framing";
import { orAborted, rankingOf, type RankQuestion } from "~/workers/sky";
import { loadChoice, withSchool } from "~/desk/choice";
import { nightOver } from "~/desk/nights";
import { ownEntries } from "~/desk/targets";

/** Everything the list of targets needs; the ranking itself comes later, from the worker. Null without a place or a rig. */
export async function loadTargets(request: Request) {
  const { library, choice } = await loadChoice(request);
  if (!choice.place || !choice.rig) return null;
  const params = new URL(request.url).searchParams;
  const place = withSchool(choice.place.data, params);
  const rig = choice.rig.data;
  const question: RankQuestion = {
    place,
    date: choice.night,
    moon: choice.moon,
    rig,
    channels: library.filters.filter((f) => rig.filterIds.includes(f.id)).map((f) => f.data.channel),
    own: ownEntries(library),
  };
  const ranking = orAborted(rankingOf(question), request.signal);
  ranking.catch(() => undefined); // an aborted ranking is nobody's fault; the screen that asked is gone
  return {
    placeMinDeg: choice.place.data.minAltitudeDeg,
    rigName: rig.name,
    arcsecPerPx: opticsOf(rig).pixelScaleArcsecPerPx,
    night: nightOver(place, choice.night, choice.moon),
    question,
    ranking,
  };
}
