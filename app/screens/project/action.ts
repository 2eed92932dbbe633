import { redirect } from "react-router";
import { settle } from "~/desk/acts";
import { answer, intentOf } from "~/desk/answer";
import { keptSearch } from "~/desk/choice";
import { notify } from "~/desk/notices";
import { libraryHere } from "~/desk/open-library";
import { requireContext } from "~/desk/project";
import { deleteProject, saveProject } from "~/desk/projects";
import type { ProjectIntent } from "./intents";

/** Changes a project, says which version of it counts, or deletes it and goes back to the list. */
export async function projectAction(request: Request, id: string) {
  const intent = await intentOf<ProjectIntent>(request);
  switch (intent.act) {
    case "change":
      return answer(await saveProject({ id, baseRev: intent.rev, data: intent.data }));
    case "settle":
      return answer(await settle("project", id, intent.data));
    case "delete": {
      const c = requireContext(await libraryHere(), id);
      const done = await deleteProject(c);
      if (!done.ok) return answer(done);
      notify(`${c.project.data.name} deleted. Its log entries stay and come back with it.`, done.value.undoId);
      return redirect(`/projects${keptSearch(new URL(request.url).searchParams)}`);
    }
  }
}
