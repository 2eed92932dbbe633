import { redirect } from "react-router";
import { loadChoice } from "~/desk/choice";
import { libraryHere } from "~/desk/open-library";
import { betterNext } from "~/desk/better";
import { NIGHTS_AHEAD, placesAway, tonightView } from "~/desk/tonight";
import { eveningsSoon, seasonPlan, whileAsking } from "~/desk/season";
import { askAll } from "~/desk/weather";
import { nightsBetween } from "~/core/time";

/** Shows what is known at once, provisionally; and the plan, with what the services say, when both are there. */
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
  return { view: tonightView(library, await eveningsSoon(library), at), fresh, better };
}
