import { deskOf } from "~/at-desk";
import { useState } from "react";
import { Outlet, useSearchParams } from "react-router";
import { Copies } from "~/components/Copies";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { TabLinks } from "~/components/TabLinks";
import { theDrafts } from "~/desk/records/kept";
import type { Answer } from "~/desk/records/answer";
import { keptSearch, moonOf } from "~/desk/sky/choice";
import { libraryHere } from "~/desk/records/open-library";
import { partToChange } from "~/desk/records/parts";
import { requireContext } from "~/desk/projects/project";
import { targetNameOf } from "~/desk/sky/targets";
import type { Route } from "./+types/route";
import { projectAction } from "./action";
import type { ProjectIntent } from "./intents";
import { ProjectHead } from "./ProjectHead";

export async function clientLoader({ context, params }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const library = await libraryHere(desk);
  const c = requireContext(library, params.projectId);
  return {
    project: c.project,
    part: {
      isMine: c.part.isMine,
      memberName: library.members.find((m) => m.id === c.part.data.memberId)?.data.name ?? "somebody",
      placeId: c.place.id,
      rigId: c.rig.id,
      own: partToChange(library, c.id),
      channels: [...new Set(c.goal.data.channels.map((g) => g.channel))],
      panels: c.panels.length,
    },
    isTyped: desk.at(theDrafts).get(`project ${c.id}`) !== null,
    targetName: targetNameOf(library, c.project.data.targetId),
    moon: moonOf(library),
    places: library.places.map((p) => ({ id: p.id, name: p.data.name })),
    rigs: library.rigs.map((r) => ({ id: r.id, name: r.data.name })),
  };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request, params }: Route.ClientActionArgs) =>
  projectAction(deskOf(context), request, params.projectId);

const LEAVES = ["frame", "budget", "plan", "log", "crew", "record"] as const;

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function ProjectRoute({ loaderData, params }: Route.ComponentProps) {
  const { project, part, targetName, places, rigs, moon } = loaderData;
  const [search] = useSearchParams();
  const { act, answer, refusal } = useAct<ProjectIntent, Answer>();
  // Open until something was kept since it was opened; at once where something typed before is not saved yet.
  const [opened, setOpened] = useState<{ readonly since: Answer | undefined } | null>(
    loaderData.isTyped ? { since: undefined } : null,
  );
  const isEditing = opened !== null && (answer === opened.since || refusal !== null);
  const tabs = LEAVES.map((name) => ({
    to: `/projects/${params.projectId}/${name}`,
    word: `${name.slice(0, 1).toUpperCase()}${name.slice(1)}`,
  }));
  return (
    <>
      <ProjectHead
        key={project.id}
        id={project.id}
        rev={project.rev}
        project={project.data}
        part={part}
        targetName={targetName}
        places={places}
        rigs={rigs}
        moon={moon}
        isEditing={isEditing}
        onEditing={(is) => setOpened(is ? { since: answer } : null)}
        onChange={(changed) => void act({ act: "change", ...changed })}
        onDelete={() => void act({ act: "delete" })}
      />
      <StorageRefusal fault={refusal} />
      <Copies kind="project" of={project} />
      <TabLinks tabs={tabs} search={keptSearch(search)} label="Project" />
      <Outlet />
    </>
  );
}
