import { redirect } from "react-router";
import { loadChoice } from "~/desk/choice";
import { libraryHere } from "~/desk/open-library";
import { betterNext } from "~/desk/better";
import { NIGHTS_AHEAD, placesAway, tonightView } from "~/desk/tonight";
import { seasonPlan, whileAsking } from "~/desk/season";
import { askAll } from "~/desk/weather";
import { nightsBetween } from "~/core/time";

/** Where nothing is known of a night's weather yet, the services get so long before the page comes without them, ms. */
const FIRST_WORD_MS = 600;

/** Shows what is stored at once, and what the services say when they have answered. */
export async function loadTonight(request: Request) {
  const { library, choice } = await loadChoice(request);
  const { place } = choice;
  if (!place) throw redirect("/start");
  const ahead = nightsBetween(choice.today, choice.night);
  const at = { ...choice, place };
  const better = betterNext(library, place, choice.rig);
  const latest = async () => {
    const now = await libraryHere();
    return tonightView(now, await seasonPlan(now), at);
  };
  if (ahead < 0 || ahead > NIGHTS_AHEAD) return { view: await latest(), fresh: null, better };
  const asking = whileAsking(
    Promise.all([place, ...placesAway(library, place)].map((p) => askAll(library, p, request.signal))),
  );
  const fresh = asking.then(latest);
  fresh.catch(() => undefined); // aborted: the screen that asked is gone
  const isFirst = !library.forecasts.some((f) => f.data.placeId === place.id && f.data.night === choice.night);
  if (isFirst) {
    seasonPlan(library).catch(() => undefined); // begun meanwhile: with what the services say it goes on from there
    await Promise.race([asking.catch(() => undefined), new Promise((resolve) => setTimeout(resolve, FIRST_WORD_MS))]);
  }
  return { view: await latest(), fresh, better };
}
