import { useState } from "react";
import { data } from "react-router";
import { FileDrop } from "./FileDrop";
import { IntakeReportView } from "./IntakeReport";
import { LogForm, type LoggableProject } from "./LogForm";
import { LogTable } from "./LogTable";
import { readLogEntry } from "./log-form";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Empty, Section } from "~/components/ui/Panel";
import { useSay } from "~/components/ui/Toasts";
import type { Faults } from "~/components/forms/form-numbers";
import { panelName } from "~/core/framing";
import { nightOffer } from "~/core/plan";
import { nightDate } from "~/core/time";
import { loadLibrary, saveAll } from "~/storage/records";
import { newId } from "~/storage/session";
import { readFilesInWorker } from "~/workers/files";
import { choiceOf } from "~/desk/choice";
import { intake, type IntakeReport } from "~/desk/intake";
import { contextOf } from "~/desk/project";
import { useEdits } from "~/components/forms/use-edits";

/** Loads the log of one project, or of all. */
export async function loadLog(request: Request, projectId: string | null) {
  const library = await loadLibrary();
  const { night } = choiceOf(library, new URL(request.url).searchParams);
  const projects = library.projects.flatMap((p): LoggableProject[] => {
    const c = contextOf(library, p.id);
    if (!c || (projectId !== null && p.id !== projectId)) return [];
    const goals = c.goal.data.channels.map((g) => ({ channel: g.channel, subSec: g.subSec }));
    const others = c.filters
      .filter((f) => !goals.some((g) => g.channel === f.data.channel))
      .map((f) => ({ channel: f.data.channel, subSec: 60 }));
    return [
      {
        id: p.id,
        name: p.data.name,
        panels: c.panels.map((x) => panelName(x.number)),
        channels: [...goals, ...others],
      },
    ];
  });
  return {
    night,
    projects,
    records: library.contributions.filter((c) => projectId === null || c.data.projectId === projectId),
    calibrations: library.calibrations.length,
    members: Object.fromEntries(library.members.map((m) => [m.id, m.data.name])),
    names: Object.fromEntries(library.projects.map((p) => [p.id, p.data.name])),
    memberId: library.settings?.data.memberId ?? "",
  };
}

/** Books an entry written by hand. */
export async function bookByHand(request: Request) {
  const entry = readLogEntry(await request.formData());
  if (!entry.ok) return data({ faults: entry.error, storage: null, booked: "" }, { status: 400 });
  const library = await loadLibrary();
  const c = contextOf(library, entry.value.projectId);
  const offer = c
    ? nightOffer(c.place.data, c.layout.centre, [entry.value.channel], nightDate(entry.value.night)).channels[
        entry.value.channel
      ]
    : undefined;
  const id = newId("contribution");
  const contribution = {
    ...entry.value,
    memberId: library.settings?.data.memberId ?? "me",
    rigId: c?.rig.id ?? "unknown",
    placeId: c?.place.id ?? "unknown",
    worthRate: offer && offer.usableMin > 0 ? Number((offer.worthMin / offer.usableMin).toFixed(3)) : null,
    startMs: null,
    fileName: "",
  };
  const saved = await saveAll([{ kind: "contribution", id, data: contribution, baseRev: null }]);
  return saved.ok
    ? data({ faults: {}, storage: null, booked: id })
    : data({ faults: {}, storage: saved.error.code, booked: "" }, { status: 507 });
}

type Loaded = Awaited<ReturnType<typeof loadLog>>;

/** Dropping files, writing by hand, and what has been taken. */
export function LogPage({
  loaded,
  answer,
  isAll,
}: {
  readonly loaded: Loaded;
  readonly answer: { readonly faults: Faults; readonly storage: string | null; readonly booked: string } | undefined;
  readonly isAll: boolean;
}) {
  const { projects, records, members, names, memberId, night } = loaded;
  const [report, setReport] = useState<IntakeReport | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const { send, remove } = useEdits();
  const say = useSay();
  const project = projects.find((p) => p.id === chosen) ?? projects[0];
  const onFiles = async (files: readonly File[], signal: AbortSignal, onProgress: (done: number) => void) => {
    const read = await readFilesInWorker(files, signal, onProgress);
    const { edits, report: told } = intake(await loadLibrary(), read);
    const saved = await saveAll(edits);
    if (!saved.ok) return setFault(saved.error.code);
    setReport(told);
    send([]); // the screens follow
    if (edits.length > 0)
      say(`${edits.length} exposures booked.`, () =>
        send(edits.map((e) => ({ ...e, baseRev: "latest", isDeleted: true }))),
      );
  };
  return (
    <>
      {fault ? <StorageRefusal code={fault} /> : null}
      {answer?.storage ? <StorageRefusal code={answer.storage} /> : null}
      <FileDrop onFiles={onFiles} />
      {report ? <IntakeReportView report={report} /> : null}
      {project ? (
        <Section title="Or by hand">
          <LogForm
            projects={projects}
            project={project}
            onProject={setChosen}
            night={night}
            faults={answer?.faults ?? {}}
            formKey={answer?.booked ?? ""}
          />
        </Section>
      ) : null}
      <Section
        title="What we have"
        aside={loaded.calibrations > 0 ? `${loaded.calibrations} calibration frames on the shelf` : undefined}
      >
        {records.length === 0 ? (
          <Empty>Nothing logged yet. The morning after, drop the files of the night here.</Empty>
        ) : (
          <LogTable
            records={records}
            memberId={memberId}
            memberName={(id) => members[id] ?? "someone"}
            {...(isAll ? { projectName: (id: string) => names[id] ?? "a deleted project" } : {})}
            onChange={(record, next) =>
              send([{ kind: "contribution", id: record.id, data: next, baseRev: record.rev }])
            }
            onRemove={(gone) =>
              remove(
                `${gone.length === 1 ? "Entry" : `${gone.length} entries`} deleted.`,
                gone.map((r) => ({ kind: "contribution", ...r })),
              )
            }
          />
        )}
      </Section>
    </>
  );
}
