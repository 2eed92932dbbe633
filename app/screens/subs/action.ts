import type { Desk } from "~/desk/desk";
import { data } from "react-router";
import { counted } from "~/components/numbers";
import { CULL_WORDS } from "~/components/words/log-words";
import { answer, intentOf } from "~/desk/records/answer";
import { cull, keepLimits, keepMeasures, subsOfNight } from "~/desk/log/cull";
import { notify } from "~/desk/records/notices";
import { libraryHere } from "~/desk/records/open-library";
import type { SubsAnswer, SubsIntent } from "./intents";

/** Keeps or drops subs, or writes down what was measured of them. */
export async function subsAction(desk: Desk, request: Request) {
  const intent = await intentOf<SubsIntent>(request);
  const library = await libraryHere(desk);
  if (intent.act === "measured") {
    const done = await keepMeasures(library, intent.files);
    if (!done.ok) return data<SubsAnswer>({ refusal: done.error }, { status: 507 });
    const { report, kept } = done.value;
    if (kept) notify(desk, `${counted(report.measured, "sub")} measured.`, kept.undoId);
    return data<SubsAnswer>({ refusal: null, report });
  }
  if (intent.act === "limits") {
    const rig = library.rigs.find((r) => r.id === intent.rigId);
    if (!rig) return data<SubsAnswer>({ refusal: null }, { status: 404 });
    return answer(desk, await keepLimits(desk, rig, intent.limits), "Your limits are kept with the rig.");
  }
  const wanted = new Set(intent.ids);
  const night = subsOfNight(library, intent.night, null);
  const subs = night.filter((s) => wanted.has(s.id));
  const words = intent.isKept
    ? `${counted(subs.length, "sub")} kept.`
    : `${counted(subs.length, "sub")} dropped: ${CULL_WORDS[intent.reason]}.`;
  return answer(desk, await cull(desk, night, subs, intent.isKept, intent.reason), words);
}
