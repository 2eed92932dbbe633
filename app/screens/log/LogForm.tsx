import { DraftMark, useFormStart } from "~/components/forms/drafts";
import { SaveButton } from "~/components/forms/SaveButton";
import { useState, type ChangeEvent } from "react";
import { Form } from "react-router";
import type { Channel } from "~/core/exposure";
import { CULL_REASONS } from "~/core/ledger";
import type { Faults } from "~/components/forms/form-numbers";
import { LOG_NUMBERS } from "./log-form";
import { Field, SelectField } from "~/components/ui/Field";
import { CULL_WORDS } from "~/components/words/log-words";

/** A project one can log for. */
export interface LoggableProject {
  readonly id: string;
  readonly name: string;
  readonly panels: readonly string[];
  readonly channels: readonly { readonly channel: Channel; readonly subSec: number; readonly isShort?: boolean }[];
}

/** "L", or "L short": a second set of the same channel. */
const channelName = (c: LoggableProject["channels"][number]): string => `${c.channel}${c.isShort ? " short" : ""}`;

/** Writing a night into the log by hand: taken, kept, and why not. */
export function LogForm({
  projects,
  project,
  onProject,
  night,
  faults,
}: {
  readonly projects: readonly LoggableProject[];
  readonly project: LoggableProject;
  readonly onProject: (id: string) => void;
  readonly night: string;
  readonly faults: Faults;
}) {
  const start = useFormStart();
  // What was typed for another project fits this one's panels and channels only by chance.
  const text = start.text("projectId", project.id) === project.id ? start.text : (_: string, kept: string) => kept;
  return <Boxes key={project.id} {...{ projects, project, onProject, night, faults, text }} />;
}

/** The boxes for one project; the length of a sub follows the channel until somebody types another. */
function Boxes({
  projects,
  project,
  onProject,
  night,
  faults,
  text,
}: Parameters<typeof LogForm>[0] & { readonly text: (name: string, kept: string) => string }) {
  const subOf = (name: string) => String(project.channels.find((c) => channelName(c) === name)?.subSec ?? "");
  const [channel, setChannel] = useState(text("set", project.channels[0] ? channelName(project.channels[0]) : ""));
  const [sub, setSub] = useState(text("exposureSec", subOf(channel)));
  return (
    <Form method="post" className="grid grid-cols-2 gap-3 sm:grid-cols-4">
      <DraftMark />
      <div className="col-span-2">
        <SelectField label="Project" name="projectId" value={project.id} onChange={(e) => onProject(e.target.value)}>
          {projects.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </SelectField>
      </div>
      <SelectField label="Panel" name="panel" defaultValue={text("panel", project.panels[0] ?? "")}>
        {project.panels.map((p) => (
          <option key={p}>{p}</option>
        ))}
      </SelectField>
      <SelectField
        label="Channel"
        value={channel}
        onChange={(e) => {
          if (sub === subOf(channel) || sub === "") setSub(subOf(e.target.value));
          setChannel(e.target.value);
        }}
        fault={faults["channel"]}
      >
        {project.channels.map((c) => (
          <option key={channelName(c)}>{channelName(c)}</option>
        ))}
      </SelectField>
      <input
        type="hidden"
        name="channel"
        value={project.channels.find((c) => channelName(c) === channel)?.channel ?? channel}
      />
      <Field label="Evening of" name="night" type="date" defaultValue={text("night", night)} fault={faults["night"]} />
      {LOG_NUMBERS.map((s) => (
        <Field
          key={s.name}
          label={s.label}
          unit={s.unit}
          name={s.name}
          inputMode="numeric"
          {...(s.name === "exposureSec"
            ? { value: sub, onChange: (e: ChangeEvent<HTMLInputElement>) => setSub(e.target.value) }
            : { defaultValue: text(s.name, "") })}
          fault={faults[s.name]}
        />
      ))}
      <SelectField
        label="Not kept, or lost, because of"
        name="reason"
        defaultValue={text("reason", "")}
        fault={faults["reason"]}
      >
        <option value="">all were kept</option>
        {CULL_REASONS.map((r) => (
          <option key={r} value={r}>
            {CULL_WORDS[r]}
          </option>
        ))}
      </SelectField>
      <div className="col-span-2">
        <Field
          label="Note"
          name="note"
          defaultValue={text("note", "")}
          maxLength={4000}
          placeholder="seeing, trouble and cure"
        />
      </div>
      {faults["isSure"] ? (
        <label className="border-lamp col-span-2 flex items-start gap-2 border-l-2 pl-3 sm:col-span-4">
          <input type="checkbox" name="isSure" value="yes" className="accent-lamp mt-1 size-4 shrink-0" />
          <span role="alert">This cannot be as it stands: {faults["isSure"]} Tick if it is right all the same.</span>
        </label>
      ) : null}
      <div className="flex items-end">
        <SaveButton look="quiet" className="w-full" words="Add entry" />
      </div>
    </Form>
  );
}
