import { useState } from "react";
import { Outlet, useSearchParams } from "react-router";
import { Copies } from "~/components/Copies";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { TabLinks } from "~/components/TabLinks";
import { keptSearch } from "~/desk/choice";
import { libraryHere } from "~/desk/open-library";
import { requireContext } from "~/desk/project";
import { targetNameOf } from "~/desk/targets";
import type { Route } from "./+types/route";
import { projectAction } from "./action";
import type { ProjectIntent } from "./intents";
import { ProjectHead } from "./ProjectHead";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const library = await libraryHere();
  const c = requireContext(library, params.projectId);
  return {
    project: c.project,
    targetName: targetNameOf(library, c.project.data.targetId),
    places: library.places.map((p) => ({ id: p.id, name: p.data.name })),
    rigs: library.rigs.map((r) => ({ id: r.id, name: r.data.name })),
  };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ request, params }: Route.ClientActionArgs) => projectAction(request, params.projectId);

const LEAVES = ["frame", "budget", "plan", "log", "crew"] as const;

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function ProjectRoute({ loaderData, params }: Route.ComponentProps) {
  const { project, targetName, places, rigs } = loaderData;
  const [search] = useSearchParams();
  const { act, refusal } = useAct<ProjectIntent>();
  const [isEditing, setEditing] = useState(false);
  const tabs = LEAVES.map((name) => ({
    to: `/projects/${params.projectId}/${name}`,
    word: `${name.slice(0, 1).toUpperCase()}${name.slice(1)}`,
  }));
  return (
    <>
      <ProjectHead
        key={project.id}
        project={project.data}
        targetName={targetName}
        places={places}
        rigs={rigs}
        isEditing={isEditing}
        onEditing={setEditing}
        onChange={(data) => void act({ act: "change", rev: project.rev, data })}
        onDelete={() => void act({ act: "delete" })}
      />
      <StorageRefusal fault={refusal} />
      <Copies kind="project" of={project} />
      <TabLinks tabs={tabs} search={keptSearch(search)} label="Project" />
      <Outlet />
    </>
  );
}
