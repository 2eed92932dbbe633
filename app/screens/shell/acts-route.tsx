import { deskOf } from "~/at-desk";
import { data } from "react-router";
import type { ActsAnswer, ActsIntent } from "~/components/forms/acts-intent";
import { asideWords, keepFaultWords } from "~/components/words/keep-fault-words";
import { settle, undo } from "~/desk/records/acts";
import { answer, intentOf } from "~/desk/records/answer";
import { notify } from "~/desk/records/notices";
import { setBrokenAside } from "~/desk/records/recheck";
import type { Route } from "./+types/acts-route";

/** Takes an act of this tab back, or chooses among versions, from whatever screen that was asked. */
export async function clientAction({ context, request }: Route.ClientActionArgs) {
  const desk = deskOf(context);
  const intent = await intentOf<ActsIntent>(request);
  if (intent.act === "settle")
    return answer(
      desk,
      await settle(desk, intent, intent.data, intent.isDeleted),
      intent.isDeleted ? "Deleted, as chosen." : "Settled: the chosen version counts.",
    );
  if (intent.act === "recheck") {
    const aside = await setBrokenAside(desk);
    if (aside) notify(desk, asideWords(aside));
    return data<ActsAnswer>({ refusal: null, aside });
  }
  const done = await undo(desk, intent.undoId);
  if (done === null) notify(desk, "That cannot be undone any more.");
  else if (!done.ok) notify(desk, keepFaultWords(done.error));
  return data({ refusal: null }, { status: done?.ok ? 200 : 507 });
}

export default function ActsRoute() {
  return null;
}
