import { useState } from "react";
import { Outlet, useNavigate, useSearchParams } from "react-router";
import { Copies } from "~/components/Copies";
import { ProjectHead } from "./ProjectHead";
import { TabLinks } from "~/components/TabLinks";
import type { ProjectData } from "~/core/plan";
import { loadLibrary } from "~/storage/records";
import type { Route } from "./+types/route";
import { keptSearch } from "~/desk/choice";
import { targetNameOf } from "~/desk/targets";
import { requireContext } from "~/desk/project";
import { useEdits } from "~/components/forms/use-edits";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const library = await loadLibrary();
  const c = requireContext(library, params.projectId);
  return {
    project: c.project,
    targetName: targetNameOf(library, c.project.data.targetId),
    frame: c.frame,
    goal: c.goal,
    places: library.places.map((p) => ({ id: p.id, name: p.data.name })),
    rigs: library.rigs.map((r) => ({ id: r.id, name: r.data.name })),
  };
}
clientLoader.hydrate = true as const;

export default function ProjectRoute({ loaderData, params }: Route.ComponentProps) {
  const { project, targetName, frame, goal, places, rigs } = loaderData;
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const { send, remove } = useEdits();
  const [isEditing, setEditing] = useState(false);
  const at = `/projects/${params.projectId}`;
  const tabs = ["frame", "budget", "plan", "log", "crew"].map((name) => ({
    to: `${at}/${name}`,
    word: name[0]!.toUpperCase() + name.slice(1),
  }));
  const change = (data: ProjectData) => send([{ kind: "project", id: project.id, data, baseRev: project.rev }]);
  return (
    <>
      <ProjectHead
        project={project.data}
        targetName={targetName}
        places={places}
        rigs={rigs}
        isEditing={isEditing}
        onEditing={setEditing}
        onChange={change}
        onDelete={() => {
          remove(`${project.data.name} deleted. Its log entries stay and come back with it.`, [
            { kind: "project", ...project },
            { kind: "frame", ...frame },
            { kind: "goal", ...goal },
          ]);
          void navigate(`/projects${keptSearch(search)}`);
        }}
      />
      <Copies
        now={project.data}
        copies={project.copies}
        onTake={(copy) => send([{ kind: "project", id: project.id, data: copy.data, baseRev: "latest" }])}
        onDismiss={() => send([{ kind: "project", id: project.id, data: project.data, baseRev: "latest" }])}
      />
      <TabLinks tabs={tabs} search={keptSearch(search)} label="Project" />
      <Outlet />
    </>
  );
}
