import { loadChoice } from "~/desk/choice";
import { libraryHere } from "~/desk/open-library";
import { NIGHTS_AHEAD, placesAway, tonightView } from "~/desk/tonight";
import { seasonPlan } from "~/desk/season";
import { askAll } from "~/desk/weather";
import { nightsBetween } from "~/core/time";

/** Shows what is stored at once, and what the services say when they have answered. */
export async function loadTonight(request: Request) {
  const { library, choice } = await loadChoice(request);
  const { place } = choice;
  if (!place) return null;
  const ahead = nightsBetween(choice.today, choice.night);
  const at = { ...choice, place };
  const view = tonightView(library, await seasonPlan(library), at);
  if (ahead < 0 || ahead > NIGHTS_AHEAD) return { view, fresh: null };
  const asking = Promise.all(
    [place, ...placesAway(library, place)].map((p) => askAll(library, p, request.signal)),
  ).then(async () => {
    const now = await libraryHere();
    return tonightView(now, await seasonPlan(now), at);
  });
  asking.catch(() => undefined); // aborted: the screen that asked is gone
  return { view, fresh: asking };
}
