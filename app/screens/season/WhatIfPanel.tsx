import type { Desk } from "~/desk/desk";
import { useDesk } from "~/at-desk";
import { useRef, useState } from "react";
import { shortNight } from "~/components/clock";
import { counted, percent } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { SelectField } from "~/components/ui/Field";
import { Panel } from "~/components/ui/Panel";
import { changedBy, type FinishDates, type SeasonPlan, type WhatIf } from "~/core/season";
import { choiceOf } from "~/desk/sky/choice";
import { libraryHere } from "~/desk/records/open-library";
import { wishedProject } from "~/desk/plan/wishes";
import { seasonQuestion, placeInSeason } from "~/desk/plan/season-question";
import type { SeasonView } from "./load";

interface Choice {
  readonly key: string;
  readonly words: string;
  readonly make: () => Promise<WhatIf | null>;
}

/** All that can be asked of this season. */
function choicesOf(desk: Desk, view: SeasonView, plan: SeasonPlan): Choice[] {
  const of = (key: string, words: string, what: WhatIf): Choice => ({ key, words, make: () => Promise.resolve(what) });
  const open = view.projects.filter((p) => p.channels.length > 0);
  const usable = plan.evenings.find((e) => e.night > view.today && e.usableMin >= 60);
  return [
    ...view.places
      .filter((p) => p.travelMin > 0)
      .map((p): Choice => ({
        key: `trip ${p.id}`,
        words: `three nights at ${p.name}, from ${shortNight(view.night)}`,
        make: async () => {
          const place = placeInSeason(await libraryHere(desk), p.id);
          return place
            ? { kind: "trip", place, from: view.night < view.today ? view.today : view.night, nights: 3 }
            : null;
        },
      })),
    ...(usable
      ? [of("clear", `${shortNight(usable.night)} were sure to be clear`, { kind: "clearNight", night: usable.night })]
      : []),
    of("one target", "one target a night", { kind: "targetsANight", targets: 1 }),
    of("two rigs", "every project had a second rig like its own", { kind: "secondRig" }),
    of("one rig", "one rig at a time", { kind: "isOneRig", isOneRig: true }),
    ...open.flatMap((p) => [
      of(`first ${p.id}`, `${p.name} before all others`, { kind: "first", projectId: p.id }),
      of(`wait ${p.id}`, `${p.name} waited four weeks`, { kind: "wait", projectId: p.id, weeks: 4 }),
      of(`less ${p.id}`, `a quarter less of ${p.name}`, { kind: "lessOf", projectId: p.id, share: 0.75 }),
      ...(p.channels.length > 1
        ? p.channels.map((channel) =>
            of(`no ${p.id} ${channel}`, `${p.name} without ${channel}`, {
              kind: "withoutChannel",
              projectId: p.id,
              channel,
            }),
          )
        : []),
    ]),
    ...view.wishes.map((w): Choice => ({
      key: `start ${w.targetId}`,
      words: `${w.name} were begun${view.rigName ? ` with ${view.rigName}` : ""}`,
      make: async () => {
        const library = await libraryHere(desk);
        const choice = choiceOf(library, new URLSearchParams());
        const wished = await wishedProject(library, w.targetId, choice);
        const place = wished ? placeInSeason(library, wished.project.placeId) : null;
        return wished && place
          ? {
              kind: "start",
              project: wished.project,
              place,
              rig: { id: wished.rig.id, overheads: wished.rig.data.overheads },
            }
          : null;
      },
    })),
    of("low", "everything from 20° on", { kind: "lowest", altitudeDeg: 20 }),
  ];
}

type Work =
  | { readonly kind: "idle" }
  | { readonly kind: "running" }
  | { readonly kind: "done"; readonly words: string; readonly of: SeasonPlan; readonly plan: SeasonPlan }
  | { readonly kind: "failed"; readonly message: string };

/** What if: one thing changed, planned anew beside the plan, and the odds before and after side by side. */
export function WhatIfPanel({ view, plan }: { readonly view: SeasonView; readonly plan: SeasonPlan }) {
  const desk = useDesk();
  const choices = choicesOf(desk, view, plan);
  const [key, setKey] = useState(choices[0]?.key ?? "");
  const [work, setWork] = useState<Work>({ kind: "idle" });
  const running = useRef<AbortController | null>(null);
  const chosen = choices.find((c) => c.key === key) ?? choices[0];
  if (!chosen) return null;
  const compare = async () => {
    const controller = new AbortController();
    running.current = controller;
    setWork({ kind: "running" });
    try {
      const what = await chosen.make();
      if (!what) return;
      const question = changedBy(seasonQuestion(await libraryHere(desk)), what);
      const other = await desk.workers.season.apart(question, plan, controller.signal);
      setWork({ kind: "done", words: chosen.words, of: plan, plan: other });
    } catch (error) {
      if (!controller.signal.aborted)
        setWork({ kind: "failed", message: error instanceof Error ? error.message : "unknown" });
    }
  };
  const when = (o: FinishDates | undefined) =>
    !o ? "not begun" : o.half ? `even odds ${shortNight(o.half)}` : `${percent(o.doneShare)} in the season`;
  return (
    <Panel title="What if" aside="odds before and after">
      <SelectField label="What if …" value={chosen.key} onChange={(e) => setKey(e.target.value)}>
        {choices.map((c) => (
          <option key={c.key} value={c.key}>
            {c.words}
          </option>
        ))}
      </SelectField>
      <div className="mt-2 flex gap-2">
        <Button onClick={() => void compare()} disabled={work.kind === "running"}>
          Compare
        </Button>
        {work.kind === "running" ? (
          <Button
            look="plain"
            onClick={() => {
              running.current?.abort(new Error("stopped"));
              setWork({ kind: "idle" });
            }}
          >
            Stop
          </Button>
        ) : null}
      </div>
      <div aria-live="polite">
        {work.kind === "running" ? <p className="text-soft mt-2">Planning it anew …</p> : null}
        {work.kind === "failed" ? <p className="text-rust mt-2">It could not be planned: {work.message}.</p> : null}
        {work.kind === "done" ? (
          <>
            <p className="mt-2 font-semibold">If {work.words}:</p>
            <ul className="mt-1">
              {[
                ...view.projects,
                ...view.wishes.map((w) => ({ id: `wish ${w.targetId}`, name: w.name, channels: ["L"] })),
              ]
                .filter((p) => p.channels.length > 0 && work.plan.jobs.some((j) => j.projectId === p.id))
                .map((p) => {
                  const [was, is] = [work.of, work.plan].map((x) => x.odds?.find((o) => o.projectId === p.id));
                  const change = was && is ? Math.round(100 * (is.doneShare - was.doneShare)) : 0;
                  return (
                    <li key={p.id} className="border-rule border-t py-1">
                      <b>{p.name}</b>
                      <span className="text-soft block">
                        {when(was)} → {when(is)}
                        {change === 0
                          ? ""
                          : `, ${change > 0 ? "+" : "−"}${counted(Math.abs(change), "point")} in the season`}
                      </span>
                    </li>
                  );
                })}
            </ul>
          </>
        ) : null}
      </div>
    </Panel>
  );
}
