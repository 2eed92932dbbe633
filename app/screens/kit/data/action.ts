import type { Desk } from "~/desk/desk";
import { data } from "react-router";
import { joinedWords } from "~/components/words/file-words";
import { download } from "~/components/download";
import type { KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import { keep } from "~/desk/records/acts";
import { dropAside, mendAside } from "~/desk/records/aside";
import { answer, intentOf, type Answer } from "~/desk/records/answer";
import { notify } from "~/desk/records/notices";
import { libraryHere } from "~/desk/records/open-library";
import { clearEverything, putBackEverything } from "~/desk/records/clear";
import { joinLookedInto } from "~/desk/records/join";
import { writeEverything } from "~/desk/records/written";
import { theDrafts } from "~/desk/records/kept";
import type { DataIntent, MendAnswer } from "./intents";

function told<T>(desk: Desk, done: Result<T, KeepFault>, words: (value: T) => string) {
  if (!done.ok) return data<Answer>({ refusal: done.error, revs: {} }, { status: 507 });
  const said = words(done.value);
  if (said !== "") notify(desk, said);
  return data<Answer>({ refusal: null, revs: {} });
}

/** Brings data in and out, deletes all of it, puts it back. */
export async function dataAction(desk: Desk, request: Request) {
  const intent = await intentOf<DataIntent>(request);
  const library = await libraryHere(desk);
  switch (intent.act) {
    case "rename": {
      const done = await keep(desk, [
        { kind: "member", id: intent.id, data: { name: intent.name }, baseRev: intent.rev },
      ]);
      if (done.ok) desk.at(theDrafts).drop("own name");
      return answer(desk, done, "Your name is changed.");
    }
    case "join": {
      const joined = await joinLookedInto(library, intent.handle, intent);
      return joined
        ? told(desk, joined.done, (counts) => joinedWords(joined.fileName, counts))
        : data<Answer>({ refusal: null, revs: {} });
    }
    case "drop": {
      const done = await dropAside(desk, intent.thing);
      return answer(desk, done, `${intent.thing.key} is dropped.`);
    }
    case "mend": {
      const done = await mendAside(desk, intent.thing, intent.text);
      return done.ok
        ? answer(desk, done.value, `${intent.thing.key} reads again.`)
        : data<MendAnswer>({ fault: done.error });
    }
    case "clear":
      return told(desk, await clearEverything(desk), () => "Everything here is deleted. It can be put back here.");
    case "putBack":
      return told(desk, await putBackEverything(desk), () => "Everything is back.");
    case "backup": {
      const file = await writeEverything(library);
      download(file.name, file.text, "application/json");
      return data<Answer>({ refusal: null, revs: {} });
    }
  }
}
