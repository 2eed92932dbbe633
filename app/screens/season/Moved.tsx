import { useDesk } from "~/at-desk";
import { counted } from "~/components/numbers";
import { type SeasonPlan, movedNights } from "~/core/season";
import { isProvisional } from "~/desk/plan/asking";
import type { SeasonView } from "./load";
import { conflictWords, movedWords } from "./season-words";

const MOVED_AHEAD = 30; // nights

/** What was fixed by hand and cannot be kept, and why. */
export function Conflicts({ view, plan }: { readonly view: SeasonView; readonly plan: SeasonPlan }) {
  if (plan.conflicts.length === 0) return null;
  const nameOf = (id: string) => {
    const lock = view.locks.find((l) => l.id === id);
    const project = view.projects.find((p) => p.id === lock?.projectId)?.name;
    const place = lock?.placeId ? view.placeNames[lock.placeId] : undefined;
    const what = (project && lock?.channel ? `${project} in ${lock.channel}` : project) ?? place ?? "the whole night";
    return lock?.does === "fix" ? `${what} kept` : project || place ? `${what} ruled out` : "the night kept free";
  };
  return (
    <div className="border-rust my-2 border-l-2 pl-3" role="alert">
      <p className="font-semibold">Not everything you fixed can be kept:</p>
      <ul>
        {plan.conflicts.map((c) => (
          <li key={c.locks.join()}>{conflictWords(c, nameOf)}</li>
        ))}
      </ul>
    </div>
  );
}

/** What of the next weeks has moved since the plan was seen last. */
export function Moved({
  view,
  plan,
  before,
}: {
  readonly view: SeasonView;
  readonly plan: SeasonPlan;
  readonly before: SeasonPlan | null;
}) {
  const desk = useDesk();
  // While forecasts are being asked nothing is told as moved: the next answer may move it back.
  const isTold = before !== null && plan.stage === "whole" && !isProvisional(desk);
  const moved = isTold ? movedNights(before, plan, MOVED_AHEAD) : [];
  if (moved.length === 0) return null;
  const nameOf = (id: string) => view.names[id] ?? "a deleted project";
  const hasTonight = moved.some((m) => m.night === plan.from);
  return (
    <details className="no-print border-lamp my-2 border-l-2 pl-3">
      <summary className="cursor-pointer font-semibold">
        {counted(moved.length, "night")} of the next {MOVED_AHEAD} moved
        {hasTonight ? ", tonight among them" : ""}
      </summary>
      <ul className="text-soft">
        {moved.map((m) => (
          <li key={`${m.night} ${m.rigIds.join()}`}>{movedWords(m, nameOf, view.zones[m.placeId] ?? view.zone)}.</li>
        ))}
      </ul>
    </details>
  );
}
