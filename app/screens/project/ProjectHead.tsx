import { useState } from "react";
import { RestoredNote, useDraftState } from "~/components/forms/drafts";
import { MOON_SCHOOLS, type MoonWishes } from "~/core/night";
import type { Channel } from "~/core/exposure";
import type { PartData, ProjectData, Urgency } from "~/core/plan";
import { isNightDate } from "~/core/time";
import type { ChangedPart } from "~/desk/records/parts";
import { MOON_SCHOOL_WORDS } from "~/components/words/moon-words";
import { Button } from "~/components/ui/Button";
import { Unbroken } from "~/components/ui/Unbroken";
import { Field, SelectField, TextField } from "~/components/ui/Field";
import { ShootingRulesFields } from "./ShootingRulesFields";
import { readChanged, type ChangedProject, type Named } from "./changed-project";

/** How a project is shown: by whose part, and whether that is one's own. */
export interface HeadPart {
  readonly isMine: boolean;
  /** Whose part it is, where it is not one's own. */
  readonly memberName: string;
  readonly placeId: string;
  readonly rigId: string;
  /** One's own part as stored, or as it would be taken; null = nothing to take part with. */
  readonly own: ChangedPart | null;
  /** Channels the project wants. */
  readonly channels: readonly Channel[];
  /** Panels of the frame that is shot. */
  readonly panels: number;
}

/** A project's name and what it is shot with; everything can be changed in place. */
export function ProjectHead({
  id,
  rev,
  project,
  part,
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
  readonly part: HeadPart;
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
        <Editor
          id={id}
          rev={rev}
          project={project}
          part={part}
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
  part,
  places,
  rigs,
  moon,
  onChange,
  onDelete,
}: {
  readonly id: string;
  readonly rev: string;
  readonly project: ProjectData;
  readonly part: HeadPart;
  readonly places: readonly Named[];
  readonly rigs: readonly Named[];
  readonly moon: MoonWishes;
  readonly onChange: (changed: ChangedProject) => void;
  readonly onDelete: () => void;
}) {
  const kept: ChangedProject = { rev, data: project, part: part.own };
  const { value, set, discard, isRestored } = useDraftState<ChangedProject>(
    { name: `project ${id}`, title: `changes to ${project.name}` },
    kept,
    readChanged(kept),
    (a, b) => JSON.stringify([a.data, a.part?.data]) === JSON.stringify([b.data, b.part?.data]),
  );
  const { data: draft, part: own } = value;
  const setDraft = (data: ProjectData) => set({ ...value, data });
  const setPart = (change: Partial<PartData>) => {
    if (own) set({ ...value, part: { ...own, data: { ...own.data, ...change } } });
  };
  const promised = own?.data.channels ?? part.channels;
  const promise = (channel: Channel, is: boolean) => {
    if (!own) return;
    const { channels: _, ...rest } = own.data;
    const next = is ? [...promised, channel] : promised.filter((c) => c !== channel);
    const isAll = part.channels.every((c) => next.includes(c));
    set({ ...value, part: { ...own, data: isAll ? rest : { ...rest, channels: next } } });
  };
  const bind = (channel: Channel, placeId: string) => {
    if (!own) return;
    const { onlyAt = {}, ...rest } = own.data;
    const { [channel]: _, ...others } = onlyAt;
    const next = placeId === "" ? others : { ...others, [channel]: placeId };
    set({
      ...value,
      part: { ...own, data: Object.keys(next).length === 0 ? rest : { ...rest, onlyAt: next } },
    });
  };
  const [isRead, setReads] = useState(true);
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
        <option value="sinkingFirst">the sinking panel first</option>
      </SelectField>
      <SelectField
        label="Whose hours"
        value={draft.hours ?? "kept"}
        hint="By light suits crews of unequal kit and sky; as kept is what people plan and publish."
        onChange={(e) => {
          const { hours: _, ...rest } = draft;
          setDraft(e.target.value === "light" ? { ...rest, hours: "light" } : rest);
        }}
      >
        <option value="kept">as kept: an hour kept is an hour, whoever took it</option>
        <option value="light">by light: hours at the reference&apos;s best</option>
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
      <SelectField
        label="Against my other projects"
        value={draft.urgency ?? "usual"}
        onChange={(e) => {
          const { urgency: _, ...rest } = draft;
          const urgency = e.target.value as Urgency;
          setDraft(urgency === "usual" ? rest : { ...rest, urgency });
        }}
      >
        <option value="first">first: its hours count double</option>
        <option value="usual">like the others</option>
        <option value="whenFree">when nights are free: its hours count half</option>
      </SelectField>
      <Field
        label="To be done by"
        type="date"
        value={draft.deadline ?? ""}
        hint="Nights after it are not planned for it. Empty: no deadline."
        onChange={(e) => {
          const { deadline: _, ...rest } = draft;
          setDraft(isNightDate(e.target.value) ? { ...rest, deadline: e.target.value } : rest);
        }}
      />
      <ShootingRulesFields
        rules={draft.rules ?? {}}
        channels={part.channels}
        onReads={setReads}
        hasRounds={part.panels > 1 && draft.school === "allPanelsEveryNight"}
        onChange={(rules) => {
          const { rules: _, ...rest } = draft;
          setDraft(Object.keys(rules).length === 0 ? rest : { ...rest, rules });
        }}
      />
      <div className="sm:col-span-2">
        <TextField
          label="Notes"
          rows={2}
          value={draft.notes}
          maxLength={4000}
          onChange={(e) => setDraft({ ...draft, notes: e.target.value })}
        />
      </div>
      {own ? (
        <fieldset className="border-rule grid gap-3 border-t pt-3 sm:col-span-2 sm:grid-cols-2">
          <legend className="sr-only">My part</legend>
          <p className="sm:col-span-2">
            <span className="font-semibold">My part</span>{" "}
            <span className="text-note text-soft">Yours alone: friends keep their own place, rig and promises.</span>
          </p>
          <SelectField label="Place" value={own.data.placeId} onChange={(e) => setPart({ placeId: e.target.value })}>
            {places.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </SelectField>
          <SelectField label="Rig" value={own.data.rigId} onChange={(e) => setPart({ rigId: e.target.value })}>
            {rigs.map((r) => (
              <option key={r.id} value={r.id}>
                {r.name}
              </option>
            ))}
          </SelectField>
          {part.channels.length > 1 ? (
            <fieldset className="sm:col-span-2">
              <legend className="text-note text-soft">Channels I shoot; only these are planned for me</legend>
              <div className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
                {part.channels.map((c) => (
                  <label key={c} className="flex min-h-6 items-center gap-2">
                    <input
                      type="checkbox"
                      checked={promised.includes(c)}
                      onChange={(e) => promise(c, e.target.checked)}
                    />
                    {c}
                  </label>
                ))}
              </div>
            </fieldset>
          ) : null}
          {places.length > 1 ? (
            <fieldset className="sm:col-span-2">
              <legend className="text-note text-soft">
                Channels shot at one place only; the plan then goes there for them
              </legend>
              <div className="mt-1 grid gap-x-5 gap-y-2 sm:grid-cols-3">
                {part.channels
                  .filter((c) => promised.includes(c))
                  .map((c) => (
                    <SelectField
                      key={c}
                      label={c}
                      value={own.data.onlyAt?.[c] ?? ""}
                      onChange={(e) => bind(c, e.target.value)}
                    >
                      <option value="">wherever the rig stands</option>
                      {places.map((p) => (
                        <option key={p.id} value={p.id}>
                          only at {p.name}
                        </option>
                      ))}
                    </SelectField>
                  ))}
              </div>
            </fieldset>
          ) : null}
        </fieldset>
      ) : null}
      <div className="flex gap-2 sm:col-span-2">
        <Button
          look="main"
          disabled={!hasName || !isRead}
          onClick={() => onChange({ ...value, data: { ...draft, name: draft.name.trim() } })}
        >
          {part.isMine ? "Save" : "Save and take part"}
        </Button>
        <Button look="stop" onClick={onDelete}>
          Delete project
        </Button>
      </div>
    </div>
  );
}
