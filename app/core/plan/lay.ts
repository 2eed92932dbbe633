import { underSky } from "~/core/exposure";
import type { Place, PlaceNight } from "~/core/night";
import { laidOut, type SheetProject } from "./sheet";
import {
  nightFrom,
  planSeason,
  type Evening,
  type NightStock,
  type Planning,
  type SeasonPlan,
  type SeasonProject,
  type SeasonQuestion,
} from "~/core/season";

/** Lays the evenings of a plan out by the clock, each by its own run sheet: so all that is shown of a plan is what its sheets do. */
export function layEvenings(question: SeasonQuestion, stock: NightStock): (evenings: readonly Evening[]) => Evening[] {
  const projectOf = new Map(question.projects.map((p) => [p.id, p]));
  return (evenings) =>
    evenings.map((evening) => {
      const place = question.places.find((p) => p.id === evening.placeId);
      const rig = question.rigs.find((r) => evening.rigIds.includes(r.id));
      const ids = [...new Set(evening.blocks.map((b) => b.projectId))];
      if (!place || !rig || ids.length === 0) return evening;
      const nightOf = (id: string): PlaceNight => nightFrom(stock, place.place, evening.night, projectOf.get(id)!.moon);
      const projects = ids.flatMap((id): SheetProject[] => {
        const project = projectOf.get(id);
        const shot = project?.shot;
        const home = question.places.find((p) => p.id === project?.placeId)?.place;
        return shot
          ? [
              {
                id,
                ...shot,
                own: ownThere(project, home, place.place),
                night: nightOf(id),
                filterName: (channel) => channel,
              },
            ]
          : [];
      });
      if (projects.length < ids.length) return evening;
      return laidOut({
        evening,
        projects,
        night: nightOf(ids[0]!),
        overheads: rig.overheads,
        flips: rig.flips ?? false,
        ...(rig.changesFilters === undefined ? {} : { changesFilters: rig.changesFilters }),
        standsBeforeDark: question.standsBeforeDark ?? true,
        within: null,
      });
    });
}

/** By what the minutes of a project's channels are weighed at a place, from what they are weighed by at home. */
function ownThere(project: SeasonProject, home: Place | undefined, there: Place): SheetProject["own"] {
  return Object.fromEntries(
    project.wants.flatMap(({ channel, own }) =>
      own && home ? [[channel, underSky(own, home.skyMagPerArcsec2, there.skyMagPerArcsec2)]] : [],
    ),
  );
}

/** Plans a season with its evenings laid out by the clock: `planSeason`, as people meet it. */
export const planEvenings = (
  question: SeasonQuestion,
  { stock = new Map(), ...from }: Planning = {},
): ReturnType<typeof planSeason> => planSeason(question, { ...from, stock, lay: layEvenings(question, stock) });

const NEXT_NIGHTS = 3; // as far as forecasts are asked for

/**
 * The next evenings planned by themselves, while the season is still to be planned: as if it ended with them. What later nights are
 * better for is not known yet, so it is no plan, only what one can be told at once.
 */
export function nextEvenings(question: SeasonQuestion, stock: NightStock): SeasonPlan {
  const few = { ...question, nights: Math.min(NEXT_NIGHTS, question.nights), runs: 1 };
  let plan: SeasonPlan | null = null;
  for (const step of planEvenings(few, { stock })) {
    plan = step;
    if (step.stage === "settled") break;
  }
  return { ...plan!, stage: "soon" };
}
