import { isEverDark, targetNight, USUAL_MOON, type NightSteps, type Place } from "~/core/night";
import { chooseTonight, hoursOf, projectTonight, type TonightChoice, type TonightProject } from "~/core/plan";
import {
  eveningsElsewhere,
  eveningsOf,
  type Evening,
  type NightStock,
  type PlannedBlock,
  type SeasonPlan,
} from "~/core/season";
import { type NightSky } from "~/core/sky";
import { type NightDate } from "~/core/time";
import { moonOf } from "~/desk/sky/choice";
import type { Entity, Library } from "~/desk/records/library";
import { ownContextsOf, type ProjectContext } from "~/desk/projects/project";
import { ownUnder } from "~/desk/projects/weights";
import { nightOver } from "~/desk/sky/nights";
import { slot } from "~/desk/desk";
import { topic } from "~/desk/memo";
import { forecastOf, seasonQuestion } from "./season-question";
import { weatherKept, type Weather } from "~/desk/sky/weather";

const projectNights = topic<TonightProject | null>(400);
const stock = slot((): NightStock => new Map());

/** What the rigs do on a night at a place: as the plan has it, or, where it has nothing to say, as it would go about it. */
function eveningsAt(
  library: Library,
  plan: SeasonPlan,
  place: Entity<Place>,
  night: NightDate,
  chance: number,
): readonly Evening[] {
  const question = seasonQuestion(library);
  const planned = eveningsOf(plan, night).filter((e) => e.placeId === place.id && e.closed !== "elsewhere");
  if (planned.length > 0 || question.projects.length === 0) return planned;
  const said = forecastOf(library, place, night);
  return eveningsElsewhere(
    question,
    plan,
    { id: place.id, place: place.data, night, chance, hours: said?.hours ?? null, within: said?.within ?? null },
    library.desk.at(stock),
  );
}

/** Everything about a night that depends on the place: its sky, its targets, its weather, and what the plan has for it. */
export function nightAt(
  library: Library,
  plan: SeasonPlan,
  place: Entity<Place>,
  night: NightDate,
  contexts: readonly ProjectContext[] = ownContextsOf(library),
): {
  readonly sky: NightSky;
  readonly steps: NightSteps;
  /** Whether it gets dark enough at all, as its owner takes twilight. */
  readonly isDark: boolean;
  readonly evenings: readonly Evening[];
  readonly tonight: readonly (TonightProject & { readonly name: string })[];
  readonly choice: TonightChoice;
  readonly weather: ReturnType<typeof weatherKept>;
} {
  const { sky, steps } = nightOver(library.desk, place.data, night, USUAL_MOON);
  const isDark = isEverDark(nightOver(library.desk, place.data, night, moonOf(library)));
  const weather = weatherKept(library, place, night, hoursOf(steps));
  const worth = (e: Evening) => e.blocks.reduce((sum, b) => sum + b.countsMin, 0);
  const evenings = [...eveningsAt(library, plan, place, night, weather.climatology)].sort(
    (a, b) => worth(b) - worth(a),
  );
  const blocks = evenings.flatMap((e) => e.blocks);
  const tonight = contexts.flatMap((c) => {
    const at = nightOver(library.desk, place.data, night, c.moon);
    const planned = blocks.filter((b) => b.projectId === c.id).map((b) => b.channel);
    const t = library.desk.memo(
      projectNights,
      `${c.id} ${place.id} ${night} ${planned.join()}`,
      [at, c.layout, c.needs, c.own],
      () =>
        projectTonight(
          at,
          { id: c.id, target: c.layout.centre, needs: c.needs, own: ownUnder(c, place.data) },
          planned,
        ),
    );
    return t ? [{ ...t, name: c.project.data.name }] : [];
  });
  const walkOf = (block: PlannedBlock) => {
    const c = contexts.find((x) => x.id === block.projectId);
    return c
      ? targetNight(
          nightOver(library.desk, place.data, night, c.moon),
          c.layout.centre,
          block.channel,
          ownUnder(c, place.data)[block.channel],
        ).walk
      : null;
  };
  return {
    sky,
    steps,
    isDark,
    evenings,
    tonight,
    choice: chooseTonight(evenings, { steps, isDark, projects: tonight, walkOf }),
    weather,
  };
}

/** Whether some service has not answered yet. */
export const isAsking = ({ sources }: Pick<Weather, "sources">): boolean => sources.some((s) => s.state === "asking");

/** Works out in turns what projects get out of a night at a place, so that `nightAt` is quick. */
export async function readyNight(
  library: Library,
  place: Entity<Place>,
  night: NightDate,
  contexts: readonly ProjectContext[],
  turn: () => Promise<void>,
): Promise<void> {
  for (const c of contexts) {
    const own = ownUnder(c, place.data);
    for (const channel of new Set(c.needs.map((n) => n.channel))) {
      targetNight(nightOver(library.desk, place.data, night, c.moon), c.layout.centre, channel, own[channel]);
      await turn();
    }
  }
}
