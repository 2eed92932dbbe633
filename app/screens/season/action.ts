import { shortNight } from "~/components/clock";
import { counted } from "~/components/numbers";
import { data } from "react-router";
import { answer, intentOf } from "~/desk/answer";
import { notify } from "~/desk/notices";
import { keepWishes, readWishes, unwish } from "~/desk/wishes";
import { lockNight, moveNight, unlock } from "~/desk/locks";
import { libraryHere } from "~/desk/open-library";
import type { SeasonAnswer, SeasonIntent } from "./intents";

/** Sets locks and lets go of them. */
export async function seasonAction(request: Request) {
  const intent = await intentOf<SeasonIntent>(request);
  const library = await libraryHere();
  switch (intent.act) {
    case "lock": {
      const { does, projectId, placeId } = intent.about;
      const said =
        does === "fix"
          ? `${shortNight(intent.night)} is kept.`
          : projectId === undefined && placeId === undefined
            ? `${shortNight(intent.night)} stays free.`
            : `Not on ${shortNight(intent.night)}.`;
      return answer(await lockNight(library, intent.night, intent.about), said);
    }
    case "move":
      return answer(
        await moveNight(library, intent.projectId, intent.from, intent.to),
        `Moved to ${shortNight(intent.to)} and kept there.`,
      );
    case "wishes": {
      const read = await readWishes(library, intent.text);
      const done = read.edits.length > 0 ? await keepWishes(read) : null;
      if (done && !done.ok) return data<SeasonAnswer>({ refusal: done.error }, { status: 507 });
      if (done?.ok) notify(`${counted(read.found.length, "wish", "wishes")} on the list.`, done.value.undoId);
      return data<SeasonAnswer>({ refusal: null, missing: read.missing, found: read.found.length });
    }
    case "unwish":
      return answer(await unwish(library, intent.targetIds), "Off the wish list.");
    case "unlock":
      return answer(await unlock(library, intent.ids), `${counted(intent.ids.length, "lock")} let go.`);
  }
}
