import { data } from "react-router";
import { joinedWords } from "~/components/words/words";
import { download } from "~/components/download";
import type { KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import { keep } from "~/desk/acts";
import { dropAside, mendAside } from "~/desk/aside";
import { answer, intentOf, type Answer } from "~/desk/answer";
import { notify } from "~/desk/notices";
import { libraryHere } from "~/desk/open-library";
import { clearEverything, joinLookedInto, putBackEverything, writeEverything } from "~/desk/sharing";
import { dropDraft } from "~/storage/drafts";
import type { DataIntent, MendAnswer } from "./intents";

function told<T>(done: Result<T, KeepFault>, words: (value: T) => string) {
  if (!done.ok) return data<Answer>({ refusal: done.error, revs: {} }, { status: 507 });
  const said = words(done.value);
  if (said !== "") notify(said);
  return data<Answer>({ refusal: null, revs: {} });
}

/** Brings data in and out, deletes all of it, puts it back. */
export async function dataAction(request: Request) {
  const intent = await intentOf<DataIntent>(request);
  const library = await libraryHere();
  switch (intent.act) {
    case "rename": {
      const done = await keep([{ kind: "member", id: intent.id, data: { name: intent.name }, baseRev: intent.rev }]);
      if (done.ok) dropDraft("own name");
      return answer(done, "Your name is changed.");
    }
    case "join": {
      const joined = await joinLookedInto(library, intent);
      return joined
        ? told(joined.done, (counts) => joinedWords(joined.fileName, counts))
        : data<Answer>({ refusal: null, revs: {} });
    }
    case "drop": {
      const done = await dropAside(intent.thing);
      return answer(done, `${intent.thing.key} is dropped.`);
    }
    case "mend": {
      const done = await mendAside(intent.thing, intent.text);
      return done.ok ? answer(done.value, `${intent.thing.key} reads again.`) : data<MendAnswer>({ fault: done.error });
    }
    case "clear":
      return told(await clearEverything(), () => "Everything here is deleted. It can be put back here.");
    case "putBack":
      return told(await putBackEverything(), () => "Everything is back.");
    case "backup": {
      const file = await writeEverything(library);
      download(file.name, file.text, "application/json");
      return data<Answer>({ refusal: null, revs: {} });
    }
  }
}
