import { useState } from "react";
import { RestoredNote, textDraft, useDraftState } from "~/components/forms/drafts";
import { Button } from "~/components/ui/Button";
import { SelectField, TextField } from "~/components/ui/Field";
import { understood } from "./line-words";
import type { LoggableProject } from "./LogForm";

/** A night in a line or a few: "17 of 21 x 300 s Ha P2, cloud". */
export function LogLines({
  projects,
  project,
  onProject,
  night,
  fault,
  doubt,
  isBusy,
  said,
  onLines,
}: {
  readonly projects: readonly LoggableProject[];
  readonly project: LoggableProject;
  readonly onProject: (id: string) => void;
  readonly night: string;
  readonly fault: string | undefined;
  /** Why the lines cannot be as they stand. */
  readonly doubt: string | undefined;
  readonly isBusy: boolean;
  /** Changes when lines were taken. */
  readonly said: string;
  readonly onLines: (text: string, isSure: boolean) => void;
}) {
  const name = `log lines ${project.id}`;
  const { value, set, discard, isRestored } = useDraftState({ name, title: "lines for the log" }, "", textDraft);
  const [taken, setTaken] = useState(said);
  // A doubt is about the lines as they were sent.
  const [sent, setSent] = useState("");
  if (said !== taken) {
    setTaken(said);
    if (value !== "") set("");
  }
  return (
    <form
      className="grid gap-2 sm:grid-cols-[14rem_minmax(0,1fr)_auto] sm:items-start"
      onSubmit={(e) => {
        e.preventDefault();
        setSent(value);
        onLines(value, false);
      }}
    >
      {isRestored ? <RestoredNote onDiscard={discard} /> : null}
      <SelectField label="Of" value={project.id} onChange={(e) => onProject(e.target.value)}>
        {projects.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </SelectField>
      <TextField
        label={`Evening of ${night}, a line each`}
        rows={2}
        value={value}
        placeholder="17 of 21 x 300 s Ha P2, cloud"
        spellCheck={false}
        fault={fault}
        hint="Kept of taken, sub, channel, panel, in any order; then why some were not kept, and a note."
        onChange={(e) => set(e.target.value)}
      />
      <Button type="submit" className="sm:mt-6" disabled={isBusy || value.trim() === ""}>
        Add lines
      </Button>
      <Understood project={project} text={value} />
      {doubt && value === sent ? (
        <p className="border-lamp border-l-2 pl-3 sm:col-span-3" role="alert">
          This cannot be as it stands: {doubt}{" "}
          <Button look="plain" disabled={isBusy} onClick={() => onLines(value, true)}>
            It is right: add it
          </Button>
        </p>
      ) : null}
    </form>
  );
}

/** What was understood of each line so far, while it is typed. */
function Understood({ project, text }: { readonly project: LoggableProject; readonly text: string }) {
  const lines = understood(project, text);
  if (lines.length === 0) return null;
  return (
    <ul className="text-note sm:col-span-2 sm:col-start-2" aria-label="As it is understood" aria-live="polite">
      {lines.map((l) => (
        <li key={l.line} className={l.isRead ? "text-ink" : "text-soft"}>
          {l.words}
        </li>
      ))}
    </ul>
  );
}
