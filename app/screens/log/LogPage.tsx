import { useDesk } from "~/at-desk";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { keptSearch } from "~/desk/sky/choice";
import { LogLines } from "./LogLines";
import { SilentNights } from "./SilentNights";
import { ToldNights } from "./ToldNights";
import { FileDrop } from "./FileDrop";
import { Watched } from "./Watched";
import { IntakeReportView } from "./IntakeReport";
import { CalibrationShelf } from "./CalibrationShelf";
import { Intakes } from "./Intakes";
import { WrongClocks } from "./WrongClocks";
import { Doubts } from "./Doubts";
import { shortNight } from "~/components/clock";
import { counted } from "~/components/numbers";
import { WhatItBrought } from "~/components/WhatItBrought";
import { addNights } from "~/core/time";
import { theDrafts } from "~/desk/records/kept";
import { Button } from "~/components/ui/Button";
import { LogForm } from "./LogForm";
import { LogTable } from "./LogTable";
import { WithDraft } from "~/components/forms/drafts";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Empty, Section } from "~/components/ui/Panel";
import type { ReadFile } from "~/desk/log/files";
import type { Said } from "~/desk/log/intake";
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
  const desk = useDesk();
  const { projects, nights, members, names, memberId, night } = loaded;
  const [chosen, setChosen] = useState<string | null>(null);
  const files = useAct<LogIntent, LogAnswer>();
  const entries = useAct<LogIntent, LogAnswer>();
  const lines = useAct<LogIntent, LogAnswer>();
  const [params] = useSearchParams();
  const search = keptSearch(params);
  const project = projects.find((p) => p.id === chosen) ?? projects[0];
  const byHand = isAll ? "log" : `log ${project?.id ?? ""}`;
  // Hardly anybody fills boxes who can drop files: folded, unless something of it was typed before.
  const [isByHand] = useState(() => desk.at(theDrafts).get(byHand) !== null);
  const [dropped, setDropped] = useState<readonly ReadFile[]>([]);
  const [said, setSaid] = useState<Said>({});
  const look = (what: readonly ReadFile[], more: Said) => {
    setSaid(more);
    return files.act({ act: "book", files: what, said: more, isSure: false });
  };
  const onFiles = async (list: readonly File[], signal: AbortSignal, onProgress: (done: number) => void) => {
    const read = await desk.workers.files.read(list, signal, onProgress);
    setDropped(read);
    await look(read, {});
  };
  const onSure = (key: string, isSure: boolean) => {
    const others = (said.sure ?? []).filter((k) => k !== key);
    void look(dropped, { ...said, sure: isSure ? [...others, key] : others });
  };
  const report = files.answer?.report;
  const open = report?.open ?? [];
  const toMeasure = report && !report.isAdded ? report.measured : 0;
  const toAdd = report && !report.isAdded ? report.booked.reduce((sum, b) => sum + b.count, 0) : 0;
  return (
    <>
      <StorageRefusal fault={answer?.refusal ?? files.refusal ?? entries.refusal ?? lines.refusal} />
      {loaded.simulated > 0 ? (
        <p className="border-lamp mb-3 flex flex-wrap items-center gap-x-4 gap-y-2 border-l-2 pl-3">
          {counted(loaded.simulated, "entry", "entries")} of a rehearsal {loaded.simulated === 1 ? "is" : "are"} in the
          log: simulated, and counted like any other until {loaded.simulated === 1 ? "it goes" : "they go"}.
          <Button disabled={entries.isBusy} onClick={() => void entries.act({ act: "takeSimulatedOut" })}>
            Take the simulated out
          </Button>
        </p>
      ) : null}
      {loaded.latest ? (
        <p className="mb-3">
          {loaded.latest.night === addNights(loaded.today, -1)
            ? "Last night"
            : shortNight(loaded.latest.night, loaded.today)}
          : <WhatItBrought brought={loaded.latest.brought} search={search} />.
        </p>
      ) : null}
      <ToldNights
        nights={loaded.told}
        today={loaded.today}
        doubt={entries.answer?.toldDoubt}
        isBusy={entries.isBusy}
        onBook={(n, isSure) => void entries.act({ act: "told", night: n, isSure })}
      />
      {loaded.place ? (
        <SilentNights
          nights={loaded.silent}
          placeName={loaded.place.name}
          placeId={loaded.place.id}
          isBusy={lines.isBusy}
          onSay={(n, isClear) => void lines.act({ act: "howItWas", placeId: loaded.place!.id, night: n, isClear })}
        />
      ) : null}
      <FileDrop onFiles={onFiles} />
      {isAll ? (
        <Watched
          landing={loaded.landing}
          zone={loaded.zone}
          isAdded={report?.isAdded ?? false}
          onLook={(asked) => {
            setDropped(asked);
            void look(asked, {});
          }}
        />
      ) : null}
      {report ? <IntakeReportView report={report} isAdded={report.isAdded} /> : null}
      {report && !report.isAdded ? (
        <>
          <WrongClocks
            clocks={report.clocks}
            putRight={said.putRight ?? {}}
            onPut={(putRight) => void look(dropped, { ...said, putRight })}
          />
          <Doubts groups={report.doubts} isBusy={files.isBusy} onSure={onSure} />
        </>
      ) : null}
      {toAdd > 0 || toMeasure > 0 ? (
        <Button
          look="main"
          className="mb-3"
          disabled={files.isBusy}
          onClick={() => void files.act({ act: "book", files: dropped, said, isSure: true })}
        >
          {[
            toAdd > 0 ? `Add ${counted(toAdd, "exposure")}` : "",
            toMeasure > 0 ? `${toAdd > 0 ? "and" : "Add"} the stars of ${counted(toMeasure, "sub")}` : "",
          ]
            .filter((w) => w !== "")
            .join(" ")}
        </Button>
      ) : null}
      {open.length > 0 ? (
        <OpenQuestions
          key={open.map((g) => g.question.key).join(" ")}
          groups={open}
          names={loaded.choices}
          isBusy={files.isBusy}
          onAnswer={(answers) => void look(dropped, { ...said, answers: { ...said.answers, ...answers } })}
        />
      ) : null}
      {project ? (
        <Section
          title="Or in a line"
          aside={
            <Link to={`/log/nights${search}`} className="underline underline-offset-4">
              Seeing, guiding, trouble of this night
            </Link>
          }
        >
          <LogLines
            projects={projects}
            project={project}
            onProject={setChosen}
            night={night}
            fault={lines.answer?.lineFault}
            said={lines.answer?.booked ?? ""}
            isBusy={lines.isBusy}
            doubt={lines.answer?.lineDoubt}
            onLines={(text, isSure) => void lines.act({ act: "lines", projectId: project.id, night, text, isSure })}
          />
        </Section>
      ) : null}
      {project ? (
        <details className="group mt-6" open={isByHand}>
          <summary className="text-section text-soft hover:text-ink mb-1 cursor-pointer">
            Or by hand, box by box
          </summary>
          <WithDraft rev={answer?.booked ?? ""} name={byHand} title="a log entry">
            <LogForm
              projects={projects}
              project={project}
              onProject={setChosen}
              night={night}
              faults={answer?.faults ?? {}}
            />
          </WithDraft>
        </details>
      ) : null}
      <Section title="What we have">
        {nights.length === 0 ? (
          <Empty>
            {project ? (
              "Nothing logged yet. The morning after, drop the files of the night here."
            ) : (
              <>
                Nothing logged yet, and no project yet that a night’s files could go to.{" "}
                <Link to={`/targets${search}`} className="underline underline-offset-4">
                  Choose a target
                </Link>{" "}
                and start one; files of nights that have been are taken too.
              </>
            )}
          </Empty>
        ) : (
          <LogTable
            nights={nights}
            today={loaded.today}
            memberId={memberId}
            memberName={(id) => members[id] ?? "someone"}
            {...(isAll ? { projectName: (id: string) => names[id] ?? "a deleted project" } : {})}
            onChange={(record, kept, reason) => void entries.act({ act: "change", record, kept, reason })}
            search={search}
            onRemove={(gone) => void entries.act({ act: "delete", records: gone })}
          />
        )}
      </Section>
      <CalibrationShelf sets={loaded.shelf} />
      <Intakes intakes={loaded.intakes} zone={loaded.zone} />
    </>
  );
}
