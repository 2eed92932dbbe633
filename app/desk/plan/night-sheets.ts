import { eveningsOf, type Evening } from "~/core/season";
import { utcMs, type UtcInterval } from "~/core/time";
import type { ProjectContext } from "~/desk/projects/project";
import type { Library } from "~/desk/records/library";
import type { Choice } from "~/desk/sky/choice";
import { withLearntChances } from "~/desk/sky/learnt";
import { nightAt } from "./night-at";
import { seasonPlan } from "./season";
import { begunOn, seasonQuestion } from "./season-question";
import { rainDeadline } from "~/core/plan";
import { sheetOf } from "./sheet";

/**
 * The sheets of a night where it is spent: at the place asked for, else where the plan has work, else at home; null where no place is
 * known. `within` may narrow it to a stretch that is clear.
 */
export async function nightSheets(
  library: Library,
  choice: Choice,
  contexts: readonly ProjectContext[],
  placeAsked: string | null,
  within: (window: UtcInterval, zone: string) => UtcInterval | null = () => null,
) {
  const plan = await seasonPlan(library);
  const away = eveningsOf(plan, choice.night).find((e) => e.blocks.length > 0)?.placeId;
  const placeId = placeAsked ?? away ?? choice.place?.id;
  const place = library.places.find((p) => p.id === placeId) ?? choice.place;
  if (!place) return null;
  const spot = withLearntChances(library, place);
  const here = nightAt(library, plan, spot, choice.night, contexts);
  const rainMs = rainDeadline(here.weather.hours, utcMs(here.steps.startMs));
  const clear = within(here.sky.window, place.data.timeZone);
  // A night that has begun keeps the sheet it had; from a cloudy look or what is written down on, the rest is laid out anew.
  const begun = choice.night === choice.today ? begunOn(library, choice.night) : null;
  const { fromMs, begun: asked } = seasonQuestion(library);
  const begunFor = (evening: Evening) => {
    if (!begun) return null;
    const kept = begun.evenings.find((e) => e.placeId === evening.placeId && e.rigIds.join() === evening.rigIds.join());
    return {
      fromMs,
      takenUntilMs: asked?.takenUntilMs ?? null,
      before: kept ? { ...evening, blocks: kept.blocks } : null,
    };
  };
  const sheets = here.evenings.flatMap((evening) => {
    const sheet = sheetOf(library, evening, {
      place: spot,
      night: choice.night,
      contexts,
      within: clear,
      rainMs,
      begun: begunFor(evening),
    });
    return sheet ? [sheet] : [];
  });
  return { place, spot, here, rainMs, clear, begun, laidOutMs: fromMs, sheets };
}
