import { refusePage } from "~/desk/page-fault";
import type { Desk } from "~/desk/desk";
import { redirect } from "react-router";
import { answer } from "~/desk/records/answer";
import { keptSearch, loadChoice } from "~/desk/sky/choice";
import { startProject } from "~/desk/projects/projects";
import { findTarget } from "~/desk/sky/targets";
import { unwish, wishFor } from "~/desk/plan/wishes";
import { entryTitle } from "~/components/words/target-words";

/** Starts a project from a target and goes to its frame. */
export async function targetAction(desk: Desk, request: Request, targetId: string) {
  const { library, choice } = await loadChoice(desk, request);
  const { place, rig, today } = choice;
  const entry = await findTarget(library, targetId);
  if (!entry) refusePage({ code: "unknownTarget" });
  const form = await request.formData();
  if (form.get("act") === "wish")
    return answer(desk, await wishFor(library, entry.id), `${entryTitle(entry)} is on your wish list.`);
  if (form.get("act") === "unwish")
    return answer(desk, await unwish(library, [entry.id]), `${entryTitle(entry)} is off your wish list.`);
  if (!place || !rig) return redirect("/kit");
  const started = await startProject(library, { place, rig, today }, entry);
  if (!started.ok) return answer(desk, started);
  return redirect(`/projects/${started.value.projectId}/frame${keptSearch(new URL(request.url).searchParams)}`);
}
