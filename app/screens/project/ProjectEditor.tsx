import { useState } from "react";
import { RestoredNote, useDraftState } from "~/components/forms/drafts";
import { MOON_SCHOOLS, type MoonWishes } from "~/core/night";
import type { Channel } from "~/core/exposure";
import type { ProjectData, Urgency } from "~/core/plan";
import { isNightDate } from "~/core/time";
import type { ChangedPart } from "~/desk/records/parts";
import { MOON_SCHOOL_WORDS } from "~/components/words/moon-words";
import { Button } from "~/components/ui/Button";
import { Field, SelectField, TextField } from "~/components/ui/Field";
import { PartFields } from "./PartFields";
import { ShootingRulesFields } from "./ShootingRulesFields";
import { readChanged, type ChangedProject, type Named } from "./changed-project";

/** How a project is shown: by whose part, and whether that is one's own. */
interface HeadPart {
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

/** A project that can be changed, and what can be chosen for it. */
export interface ProjectEdited {
  readonly id: string;
  readonly rev: string;
  readonly project: ProjectData;
  readonly part: HeadPart;
  readonly places: readonly Named[];
  readonly rigs: readonly Named[];
  /** How the owner takes the Moon. */
  readonly moon: MoonWishes;
  readonly onChange: (changed: ChangedProject) => void;
  readonly onDelete: () => void;
}

/** Changes to a project, kept as a draft until they are saved or given up. */
export function ProjectEditor({ id, rev, project, part, places, rigs, moon, onChange, onDelete }: ProjectEdited) {
  const kept: ChangedProject = { rev, data: project, part: part.own };
  const { value, set, discard, isRestored } = useDraftState<ChangedProject>(
    { name: `project ${id}`, title: `changes to ${project.name}` },
    kept,
    readChanged(kept),
    (a, b) => JSON.stringify([a.data, a.part?.data]) === JSON.stringify([b.data, b.part?.data]),
  );
  const { data: draft, part: own } = value;
  const setDraft = (data: ProjectData) => set({ ...value, data });
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
        <PartFields
          own={own.data}
          channels={part.channels}
          places={places}
          rigs={rigs}
          onChange={(data) => set({ ...value, part: { ...own, data } })}
        />
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
