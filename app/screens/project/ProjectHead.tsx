import { useState } from "react";
import type { ProjectData } from "~/core/plan";
import { Button } from "~/components/ui/Button";
import { Field, SelectField, TextField } from "~/components/ui/Field";

interface Named {
  readonly id: string;
  readonly name: string;
}

/** A project's name and what it is shot with; everything can be changed in place. */
export function ProjectHead({
  project,
  targetName,
  places,
  rigs,
  isEditing,
  onEditing,
  onChange,
  onDelete,
}: {
  readonly project: ProjectData;
  readonly targetName: string;
  readonly places: readonly Named[];
  readonly rigs: readonly Named[];
  readonly isEditing: boolean;
  readonly onEditing: (is: boolean) => void;
  readonly onChange: (project: ProjectData) => void;
  readonly onDelete: () => void;
}) {
  const name = (all: readonly Named[], id: string) => all.find((x) => x.id === id)?.name ?? "?";
  return (
    <header className="mb-2">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-headline">{project.name}</h1>
        <p className="text-soft">
          {targetName} · {name(rigs, project.rigId)} · {name(places, project.placeId)}
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
      {isEditing ? (
        <Editor
          project={project}
          places={places}
          rigs={rigs}
          onDelete={onDelete}
          onChange={(p) => {
            onChange(p);
            onEditing(false);
          }}
        />
      ) : project.notes ? (
        <p className="text-soft max-w-prose">{project.notes}</p>
      ) : null}
    </header>
  );
}

function Editor({
  project,
  places,
  rigs,
  onChange,
  onDelete,
}: {
  readonly project: ProjectData;
  readonly places: readonly Named[];
  readonly rigs: readonly Named[];
  readonly onChange: (project: ProjectData) => void;
  readonly onDelete: () => void;
}) {
  const [draft, setDraft] = useState(project);
  const hasName = draft.name.trim() !== "";
  return (
    <div className="border-rule bg-sheet mt-3 grid max-w-4xl gap-3 rounded-[10px] border p-4 sm:grid-cols-2">
      <Field
        label="Name"
        value={draft.name}
        maxLength={120}
        onChange={(e) => setDraft({ ...draft, name: e.target.value })}
        fault={hasName ? undefined : "Give the project a name."}
      />
      <SelectField
        label="Panels"
        value={draft.school}
        onChange={(e) => setDraft({ ...draft, school: e.target.value as ProjectData["school"] })}
      >
        <option value="allPanelsEveryNight">all panels every night, in turn</option>
        <option value="panelAfterPanel">one panel after another</option>
      </SelectField>
      <SelectField
        label="Place"
        value={draft.placeId}
        onChange={(e) => setDraft({ ...draft, placeId: e.target.value })}
      >
        {places.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </SelectField>
      <SelectField label="Rig" value={draft.rigId} onChange={(e) => setDraft({ ...draft, rigId: e.target.value })}>
        {rigs.map((r) => (
          <option key={r.id} value={r.id}>
            {r.name}
          </option>
        ))}
      </SelectField>
      <div className="sm:col-span-2">
        <TextField
          label="Notes"
          rows={2}
          value={draft.notes}
          maxLength={4000}
          onChange={(e) => setDraft({ ...draft, notes: e.target.value })}
        />
      </div>
      <div className="flex gap-2 sm:col-span-2">
        <Button look="main" disabled={!hasName} onClick={() => onChange({ ...draft, name: draft.name.trim() })}>
          Save
        </Button>
        <Button look="stop" onClick={onDelete}>
          Delete project
        </Button>
      </div>
    </div>
  );
}
