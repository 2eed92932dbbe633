import type { Desk } from "~/desk/desk";
import { redirect } from "react-router";
import { loadChoice } from "~/desk/sky/choice";
import { libraryHere } from "~/desk/records/open-library";
import { betterNext } from "~/desk/kit/better";
import { NIGHTS_AHEAD, tonightView } from "~/desk/plan/tonight";
import { placesAway } from "~/desk/plan/away";
import { readyQuestion } from "~/desk/plan/season-question";
import { eveningsSoon, lookAhead, seasonInTurns } from "~/desk/plan/season";
import { whileAsking } from "~/desk/plan/asking";
import { askAll } from "~/desk/sky/weather";
import { nightsBetween } from "~/core/time";

/** Shows what is known at once, provisionally; and the plan, with what the services say, when both are there. */
export async function loadTonight(desk: Desk, request: Request) {
  void lookAhead(desk);
  const { library, choice } = await loadChoice(desk, request);
  const { place } = choice;
  if (!place) throw redirect("/start");
  const ahead = nightsBetween(choice.today, choice.night);
  const at = { ...choice, place };
  const better = betterNext(library, place, choice.rig);
  const latest = async () => {
    const now = await libraryHere(desk);
    const run = await seasonInTurns(now);
    const plan = await run.settled;
    return tonightView(now, { plan, previous: run.previous() }, at);
  };
  if (ahead < 0 || ahead > NIGHTS_AHEAD) return { view: await latest(), fresh: null, better };
  await readyQuestion(library);
  const view = await tonightView(library, await eveningsSoon(library), at);
  const asking = whileAsking(
    desk,
    Promise.all([place, ...placesAway(library, place)].map((p) => askAll(library, p, request.signal))),
  );
  const fresh = asking.then(latest);
  fresh.catch(() => undefined); // aborted: the screen that asked is gone
  return { view, fresh, better };
}
