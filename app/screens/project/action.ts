import { redirect } from "react-router";
import { answer, intentOf } from "~/desk/answer";
import { keptSearch } from "~/desk/choice";
import { notify } from "~/desk/notices";
import { libraryHere } from "~/desk/open-library";
import { dropDraft } from "~/storage/drafts";
import { requireContext } from "~/desk/project";
import { deleteProject, saveProject } from "~/desk/projects";
import type { ProjectIntent } from "./intents";

/** Changes a project, or deletes it and goes back to the list. */
export async function projectAction(request: Request, id: string) {
  const intent = await intentOf<ProjectIntent>(request);
  switch (intent.act) {
    case "change": {
      const done = await saveProject(await libraryHere(), { id, baseRev: intent.rev, data: intent.data }, intent.part);
      if (done.ok) dropDraft(`project ${id}`);
      return answer(done);
    }
    case "delete": {
      const library = await libraryHere();
      const c = requireContext(library, id);
      const done = await deleteProject(library, c);
      if (!done.ok) return answer(done);
      const hours = c.contributions.length;
      notify(
        hours > 0
          ? `${c.project.data.name} deleted, with ${hours === 1 ? "one log entry" : `${hours} log entries`}.`
          : `${c.project.data.name} deleted.`,
        done.value.undoId,
      );
      return redirect(`/projects${keptSearch(new URL(request.url).searchParams)}`);
    }
  }
}
