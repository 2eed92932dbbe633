import { useState } from "react";
import { FileDrop } from "./FileDrop";
import { IntakeReportView } from "./IntakeReport";
import { LogForm } from "./LogForm";
import { LogTable } from "./LogTable";
import { WithDraft } from "~/components/forms/drafts";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Empty, Section } from "~/components/ui/Panel";
import type { BookingAnswer } from "~/core/ledger";
import { readFilesInWorker, type ReadFile } from "~/workers/files";
import { OpenQuestions } from "./OpenQuestions";
import type { LogAnswer, LogIntent } from "./intents";
import type { loadLog } from "./load";

type Loaded = Awaited<ReturnType<typeof loadLog>>;

/** Dropping files, writing by hand, and what has been taken. */
export function LogPage({
  loaded,
  answer,
  isAll,
}: {
  readonly loaded: Loaded;
  readonly answer: LogAnswer | undefined;
  readonly isAll: boolean;
}) {
  const { projects, nights, members, names, memberId, night } = loaded;
  const [chosen, setChosen] = useState<string | null>(null);
  const files = useAct<LogIntent, LogAnswer>();
  const entries = useAct<LogIntent, LogAnswer>();
  const project = projects.find((p) => p.id === chosen) ?? projects[0];
  const [dropped, setDropped] = useState<readonly ReadFile[]>([]);
  const [said, setSaid] = useState<Readonly<Record<string, BookingAnswer>>>({});
  const onFiles = async (list: readonly File[], signal: AbortSignal, onProgress: (done: number) => void) => {
    const read = await readFilesInWorker(list, signal, onProgress);
    setDropped(read);
    setSaid({});
    await files.act({ act: "book", files: read });
  };
  const answerOpen = async (answers: Readonly<Record<string, BookingAnswer>>) => {
    const all = { ...said, ...answers };
    setSaid(all);
    await files.act({ act: "book", files: dropped, answers: all });
  };
  const open = files.answer?.report?.open ?? [];
  return (
    <>
      <StorageRefusal fault={answer?.refusal ?? files.refusal ?? entries.refusal} />
      <FileDrop onFiles={onFiles} />
      {files.answer?.report ? <IntakeReportView report={files.answer.report} /> : null}
      {open.length > 0 ? (
        <OpenQuestions
          key={open.map((g) => g.question.key).join(" ")}
          groups={open}
          names={loaded.choices}
          isBusy={files.isBusy}
          onAnswer={(answers) => void answerOpen(answers)}
        />
      ) : null}
      {project ? (
        <Section title="Or by hand">
          <WithDraft rev={answer?.booked ?? ""} name={isAll ? "log" : `log ${project.id}`} title="a log entry">
            <LogForm
              projects={projects}
              project={project}
              onProject={setChosen}
              night={night}
              faults={answer?.faults ?? {}}
            />
          </WithDraft>
        </Section>
      ) : null}
      <Section
        title="What we have"
        aside={loaded.calibrations > 0 ? `${loaded.calibrations} calibration frames on the shelf` : undefined}
      >
        {nights.length === 0 ? (
          <Empty>Nothing logged yet. The morning after, drop the files of the night here.</Empty>
        ) : (
          <LogTable
            nights={nights}
            today={loaded.today}
            memberId={memberId}
            memberName={(id) => members[id] ?? "someone"}
            {...(isAll ? { projectName: (id: string) => names[id] ?? "a deleted project" } : {})}
            onChange={(record, next) => void entries.act({ act: "change", record, next })}
            onRemove={(gone) => void entries.act({ act: "delete", records: gone })}
          />
        )}
      </Section>
    </>
  );
}
