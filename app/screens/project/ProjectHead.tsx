import { Unbroken } from "~/components/ui/Unbroken";
import type { Named } from "./changed-project";
import { ProjectEditor, type ProjectEdited } from "./ProjectEditor";

/** A project's name and what it is shot with; everything can be changed in place. */
export function ProjectHead({
  targetName,
  isEditing,
  onEditing,
  ...edited
}: ProjectEdited & {
  readonly targetName: string;
  readonly isEditing: boolean;
  readonly onEditing: (is: boolean) => void;
}) {
  const { project, part, places, rigs } = edited;
  const name = (all: readonly Named[], id: string) => all.find((x) => x.id === id)?.name ?? "?";
  return (
    <header className="mb-2">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-headline">
          <Unbroken text={project.name} />
        </h1>
        <p className="text-soft">
          {targetName} · {name(rigs, part.rigId)} · {name(places, part.placeId)}
        </p>
        <button
          type="button"
          onClick={() => onEditing(!isEditing)}
          aria-expanded={isEditing}
          className="no-print text-note text-soft underline underline-offset-4"
        >
          {isEditing ? "Close" : "Change"}
        </button>
      </div>
      {part.isMine ? null : (
        <p className="text-lamp no-print mt-1">
          You take no part in this project: it is shown as {part.memberName} shoots it, and nothing of it is planned for
          you.{" "}
          {isEditing ? null : part.own ? (
            <button type="button" onClick={() => onEditing(true)} className="underline underline-offset-4">
              Take part
            </button>
          ) : (
            "To take part, enter a place and a rig under Kit."
          )}
        </p>
      )}
      {isEditing ? (
        <ProjectEditor {...edited} />
      ) : project.notes ? (
        <p className="text-soft max-w-prose">{project.notes}</p>
      ) : null}
    </header>
  );
}
