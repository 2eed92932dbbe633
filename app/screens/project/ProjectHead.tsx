import { RestoredNote, useDraftState } from "~/components/forms/drafts";
import { MOON_SCHOOLS, type MoonWishes } from "~/core/night";
import type { ProjectData } from "~/core/plan";
import { MOON_SCHOOL_WORDS } from "~/components/words/moon-words";
import { Button } from "~/components/ui/Button";
import { Field, SelectField, TextField } from "~/components/ui/Field";

interface Named {
  readonly id: string;
  readonly name: string;
}

/** A project as it is changed, and the version that was on the page when that began. */
export interface ChangedProject {
  readonly rev: string;
  readonly data: ProjectData;
}

/** What was typed of a project is a change of it if it has the same texts. */
const readChanged =
  (kept: ProjectData) =>
  (raw: unknown): ChangedProject | null => {
    const { rev, data } = (typeof raw === "object" && raw !== null ? raw : {}) as Partial<ChangedProject>;
    const { name, notes, school, placeId, rigId, moon } = (data ?? {}) as Partial<ProjectData>;
    return typeof rev === "string" &&
      typeof name === "string" &&
      typeof notes === "string" &&
      typeof placeId === "string" &&
      typeof rigId === "string" &&
      (school === "allPanelsEveryNight" || school === "panelAfterPanel")
      ? { rev, data: { ...kept, name, notes, school, placeId, rigId, ...(moon ? { moon } : {}) } }
      : null;
  };

/** A project's name and what it is shot with; everything can be changed in place. */
export function ProjectHead({
  id,
  rev,
  project,
  targetName,
  places,
  rigs,
  moon,
  isEditing,
  onEditing,
  onChange,
  onDelete,
}: {
  readonly id: string;
  readonly rev: string;
  readonly project: ProjectData;
  readonly targetName: string;
  readonly places: readonly Named[];
  readonly rigs: readonly Named[];
  /** How the owner takes the Moon. */
  readonly moon: MoonWishes;
  readonly isEditing: boolean;
  readonly onEditing: (is: boolean) => void;
  readonly onChange: (changed: ChangedProject) => void;
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
          id={id}
          rev={rev}
          project={project}
          places={places}
          rigs={rigs}
          moon={moon}
          onDelete={onDelete}
          onChange={onChange}
        />
      ) : project.notes ? (
        <p className="text-soft max-w-prose">{project.notes}</p>
      ) : null}
    </header>
  );
}

function Editor({
  id,
  rev,
  project,
  places,
  rigs,
  moon,
  onChange,
  onDelete,
}: {
  readonly id: string;
  readonly rev: string;
  readonly project: ProjectData;
  readonly places: readonly Named[];
  readonly rigs: readonly Named[];
  readonly moon: MoonWishes;
  readonly onChange: (changed: ChangedProject) => void;
  readonly onDelete: () => void;
}) {
  const {
    value: { rev: base, data: draft },
    set,
    discard,
    isRestored,
  } = useDraftState<ChangedProject>(
    { name: `project ${id}`, title: `changes to ${project.name}` },
    { rev, data: project },
    readChanged(project),
    (a, b) => JSON.stringify(a.data) === JSON.stringify(b.data),
  );
  const setDraft = (data: ProjectData) => set({ rev: base, data });
  const hasName = draft.name.trim() !== "";
  return (
    <div className="border-rule bg-sheet mt-3 grid max-w-4xl gap-3 rounded-[10px] border p-4 sm:grid-cols-2">
      {isRestored ? <RestoredNote onDiscard={discard} /> : null}
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
      <SelectField
        label="When the Moon is up"
        value={draft.moon?.school ?? ""}
        hint="What the schools mean, and their figures, stand in Kit under Rules."
        onChange={(e) => {
          const school = MOON_SCHOOLS.find((s) => s === e.target.value);
          const { moon: _, ...rest } = draft;
          setDraft(school ? { ...rest, moon: { ...moon, school, channels: {} } } : rest);
        }}
      >
        <option value="">as I do everywhere</option>
        {MOON_SCHOOLS.map((s) => (
          <option key={s} value={s}>
            {MOON_SCHOOL_WORDS[s].name}
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
        <Button
          look="main"
          disabled={!hasName}
          onClick={() => onChange({ rev: base, data: { ...draft, name: draft.name.trim() } })}
        >
          Save
        </Button>
        <Button look="stop" onClick={onDelete}>
          Delete project
        </Button>
      </div>
    </div>
  );
}
