import { data } from "react-router";
import { download } from "~/components/download";
import type { KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import { keep } from "~/desk/acts";
import { answer, intentOf, type Answer } from "~/desk/answer";
import { notify } from "~/desk/notices";
import { libraryHere } from "~/desk/open-library";
import { clearEverything, joinDemo, joinFile, putBackEverything, writeEverything } from "~/desk/sharing";
import type { Joined } from "~/storage/store";
import type { DataIntent } from "./intents";

function told<T>(done: Result<T, KeepFault>, words: (value: T) => string) {
  if (!done.ok) return data<Answer>({ refusal: done.error, revs: {} }, { status: 507 });
  const said = words(done.value);
  if (said !== "") notify(said);
  return data<Answer>({ refusal: null, revs: {} });
}

const joinedWords = (name: string, leftOut: string) => (j: Joined) =>
  `${name}: ${j.added} new, ${j.changed} changed, ${j.known} already here${leftOut}.`;

/** Brings data in and out, deletes all of it, puts it back. */
export async function dataAction(request: Request) {
  const intent = await intentOf<DataIntent>(request);
  const library = await libraryHere();
  switch (intent.act) {
    case "rename":
      return answer(
        await keep([{ kind: "member", id: intent.id, data: { name: intent.name }, baseRev: intent.rev }]),
        "Your name is changed.",
      );
    case "join":
      return told(await joinFile(library, intent.records), joinedWords(intent.fileName, intent.leftOut));
    case "demo":
      return told(await joinDemo(library), joinedWords("Demo group", ""));
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
