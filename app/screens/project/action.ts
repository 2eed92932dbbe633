import { counted } from "~/components/numbers";
import type { Desk } from "~/desk/desk";
import { redirect } from "react-router";
import { answer, intentOf } from "~/desk/records/answer";
import { keptSearch } from "~/desk/sky/choice";
import { notify } from "~/desk/records/notices";
import { libraryHere } from "~/desk/records/open-library";
import { theDrafts } from "~/desk/records/kept";
import { requireContext } from "~/desk/projects/project";
import { deleteProject, saveProject } from "~/desk/projects/projects";
import type { ProjectIntent } from "./intents";

/** Changes a project, or deletes it and goes back to the list. */
export async function projectAction(desk: Desk, request: Request, id: string) {
  const intent = await intentOf<ProjectIntent>(request);
  switch (intent.act) {
    case "change": {
      const done = await saveProject(
        await libraryHere(desk),
        { id, baseRev: intent.rev, data: intent.data },
        intent.part,
      );
      if (done.ok) desk.at(theDrafts).drop(`project ${id}`);
      return answer(desk, done);
    }
    case "delete": {
      const library = await libraryHere(desk);
      const c = requireContext(library, id);
      const done = await deleteProject(library, c);
      if (!done.ok) return answer(desk, done);
      const entries = c.contributions.length;
      notify(
        desk,
        entries > 0
          ? `${c.project.data.name} deleted, with ${counted(entries, "log entry", "log entries")}.`
          : `${c.project.data.name} deleted.`,
        done.value.undoId,
      );
      return redirect(`/projects${keptSearch(new URL(request.url).searchParams)}`);
    }
  }
}
