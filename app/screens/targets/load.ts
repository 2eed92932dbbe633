import type { Desk } from "~/desk/desk";
import { filtersOf } from "~/desk/projects/reference";
import { opticsOf } from "~/core/framing";
import { firstDarkNight, isEverDark } from "~/core/night";
import { orAborted, type RankQuestion } from "~/desk/sky/answers";
import { loadChoice, withSchool } from "~/desk/sky/choice";
import { nightOver } from "~/desk/sky/nights";
import { usualKit } from "~/desk/kit/start";
import { ownEntries } from "~/desk/sky/targets";

/** Everything the list of targets needs; the ranking itself comes later, from the worker. Null without a place. */
export async function loadTargets(desk: Desk, request: Request) {
  const { library, choice } = await loadChoice(desk, request);
  if (!choice.place) return null;
  const params = new URL(request.url).searchParams;
  const place = withSchool(choice.place.data, params);
  // Before there is a rig: a kind that many begin with, and the screen says so.
  const { rig, filters } = choice.rig
    ? { rig: choice.rig.data, filters: filtersOf(library, choice.rig.data) }
    : usualKit();
  const asked = nightOver(desk, place, choice.night, choice.moon);
  // Where it does not get dark: the first night that does, and the screen says so.
  const firstDark = isEverDark(asked) ? null : firstDarkNight(place, choice.night, choice.moon);
  const date = firstDark ?? choice.night;
  const question: RankQuestion = {
    place,
    date,
    moon: choice.moon,
    rig,
    filters: filters.map((f) => f.data),
    own: ownEntries(library),
  };
  const ranking = orAborted(desk.workers.sky.rank(question), request.signal);
  ranking.catch(() => undefined); // an aborted ranking is nobody's fault; the screen that asked is gone
  return {
    placeMinDeg: choice.place.data.minAltitudeDeg,
    rigName: rig.name,
    isUsualRig: choice.rig === null,
    optics: opticsOf(rig),
    night: firstDark === null ? asked : nightOver(desk, place, date, choice.moon),
    /** The night asked for, where that one never gets dark; null = it does. */
    lightNight: isEverDark(asked) ? null : choice.night,
    question,
    ranking,
  };
}
