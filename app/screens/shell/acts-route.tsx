import { deskOf } from "~/at-desk";
import { data, redirect } from "react-router";
import type { ActsAnswer, ActsIntent, RoundGoal } from "~/components/forms/acts-intent";
import { asideWords, keepFaultWords } from "~/components/words/keep-fault-words";
import type { Desk } from "~/desk/desk";
import { goRound, leaveRound, ROUND, roundOn, takeUpRound } from "~/desk/kit/round";
import { keepPress } from "~/desk/plan/live";
import { settle, undo } from "~/desk/records/acts";
import { answer, intentOf } from "~/desk/records/answer";
import { notify } from "~/desk/records/notices";
import { libraryHere } from "~/desk/records/open-library";
import { setBrokenAside } from "~/desk/records/recheck";
import { choiceOf } from "~/desk/sky/choice";
import type { Route } from "./+types/acts-route";

/** Takes an act of this tab back, chooses among versions, or goes on with the round, from whatever screen that was asked. */
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
  if (intent.act === "tick") {
    const { night, rigId, check, isDone } = intent;
    const kept = await keepPress(await libraryHere(desk), { night, rigId, placeId: null }, { what: "checked", check, isDone }); // prettier-ignore
    return data<ActsAnswer>({ refusal: kept.ok ? null : kept.error }, { status: kept.ok ? 200 : 507 });
  }
  if (intent.act === "round") return goOn(desk, intent.to);
  const done = await undo(desk, intent.undoId);
  if (done === null) notify(desk, "That cannot be undone any more.");
  else if (!done.ok) notify(desk, keepFaultWords(done.error));
  return data({ refusal: null }, { status: done?.ok ? 200 : 507 });
}

/** Goes on with the round, to the page of its next stop. */
async function goOn(desk: Desk, to: RoundGoal) {
  if (to === "leave") {
    leaveRound(desk);
    return data({ refusal: null });
  }
  if (to !== "take up") {
    const stop = ROUND.find((s) => s === to.stop);
    if (stop) goRound(desk, stop);
    return redirect(to.path);
  }
  const library = await libraryHere(desk);
  const stop = takeUpRound(desk);
  return redirect(roundOn(stop, library, choiceOf(library, new URLSearchParams()), null).paths[stop] ?? "/");
}

export default function ActsRoute() {
  return null;
}
