import { equivalentHours } from "~/core/exposure";
import { isAway, type Place } from "~/core/night";
import { reasonsOf, weighNight, type AwayNight, type GoingRules } from "~/core/plan";
import { eveningsOf, type SeasonPlan } from "~/core/season";
import { MINUTE_MS, addMs, type NightDate } from "~/core/time";
import type { Entity, Library } from "~/desk/records/library";
import type { ProjectContext } from "~/desk/projects/project";
import { isAsking, nightAt, readyNight } from "./night-at";

const FARTHEST_MIN = 240; // nobody drives longer for one night

/** The place one could drive to, weighed with what is left of the night after the drive. */
export async function awayAt(
  library: Library,
  plan: SeasonPlan,
  there: Entity<Place>,
  home: Entity<Place>,
  night: NightDate,
  contexts: readonly ProjectContext[],
  rules: GoingRules,
  turn: () => Promise<void>,
): Promise<{ readonly night: AwayNight; readonly isHeard: boolean }> {
  await readyNight(library, there, night, contexts, turn);
  const travelMin = there.data.travelMin ?? 0;
  const setUpMin = rules.setUpMin - (home.data.extraSetUpMin ?? 0) + (there.data.extraSetUpMin ?? 0);
  const { steps, tonight, choice, weather } = nightAt(library, plan, there, night, contexts);
  await turn();
  const thereRules: GoingRules = {
    wishMin: rules.wishMin,
    setUpMin,
    gustLimitKmh: rules.gustLimitKmh,
    ...(there.data.windShare === undefined ? {} : { windShare: there.data.windShare }),
    fromMs: addMs(rules.fromMs, (travelMin + setUpMin) * MINUTE_MS),
  };
  const weighed = weighNight({ steps, choice, projects: tonight, weather: weather.hours, rules: thereRules });
  await turn();
  // What is shot first there says by what an hour is compared.
  const block = choice.kind === "go" ? choice.blocks[0] : undefined;
  const led = block && contexts.find((c) => c.id === block.projectId)?.own[block.channel];
  return {
    isHeard: !isAsking(weather),
    night: {
      placeId: there.id,
      name: there.data.name,
      timeZone: there.data.timeZone,
      travelMin,
      lightFactor: equivalentHours(there.data.skyMagPerArcsec2, home.data.skyMagPerArcsec2, led),
      weighed,
      reasons: reasonsOf(weighed, { steps, choice, rules: thereRules }),
    },
  };
}

/** Places near enough to drive to for one night. */
export const placesAway = (library: Library, home: Entity<Place>) =>
  library.places.filter((p) => p.id !== home.id && isAway(p.data) && p.data.travelMin! <= FARTHEST_MIN);

/** The place that the plan spends a night at, where that is another one. */
export function planElsewhere(library: Library, plan: SeasonPlan, placeId: string, night: NightDate) {
  const evenings = eveningsOf(plan, night).filter((e) => e.blocks.length > 0);
  const away = evenings.find((e) => e.placeId !== placeId);
  if (!away || evenings.some((e) => e.placeId === placeId)) return null;
  return { placeId: away.placeId, name: library.places.find((p) => p.id === away.placeId)?.data.name ?? "elsewhere" };
}
