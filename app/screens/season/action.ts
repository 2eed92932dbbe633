import type { Desk } from "~/desk/desk";
import { shortNight } from "~/components/clock";
import { counted } from "~/components/numbers";
import { data } from "react-router";
import { answer, intentOf } from "~/desk/records/answer";
import { notify } from "~/desk/records/notices";
import { keepWishes, readWishes, unwish } from "~/desk/plan/wishes";
import { lockNight, moveNight, unlock } from "~/desk/plan/locks";
import { libraryHere } from "~/desk/records/open-library";
import type { SeasonAnswer, SeasonIntent } from "./intents";

/** Sets locks and lets go of them. */
export async function seasonAction(desk: Desk, request: Request) {
  const intent = await intentOf<SeasonIntent>(request);
  const library = await libraryHere(desk);
  switch (intent.act) {
    case "lock": {
      const { does, projectId, placeId } = intent.about;
      const said =
        does === "fix"
          ? `${shortNight(intent.night)} is kept.`
          : projectId === undefined && placeId === undefined
            ? `${shortNight(intent.night)} stays free.`
            : `Not on ${shortNight(intent.night)}.`;
      return answer(desk, await lockNight(library, intent.night, intent.about), said);
    }
    case "move":
      return answer(
        desk,
        await moveNight(library, intent.projectId, intent.from, intent.to),
        `Moved to ${shortNight(intent.to)} and kept there.`,
      );
    case "wishes": {
      const read = await readWishes(library, intent.text);
      const done = read.edits.length > 0 ? await keepWishes(desk, read) : null;
      if (done && !done.ok) return data<SeasonAnswer>({ refusal: done.error }, { status: 507 });
      if (done?.ok) notify(desk, `${counted(read.found.length, "wish", "wishes")} on the list.`, done.value.undoId);
      return data<SeasonAnswer>({ refusal: null, missing: read.missing, found: read.found.length });
    }
    case "unwish":
      return answer(desk, await unwish(library, intent.targetIds), "Off the wish list.");
    case "unlock":
      return answer(desk, await unlock(library, intent.ids), `${counted(intent.ids.length, "lock")} let go.`);
  }
}
