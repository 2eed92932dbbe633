import { Button } from "~/components/ui/Button";
import { type PlannedBlock, channelsText } from "~/core/season";
import type { NightDate } from "~/core/time";
import type { SeasonIntent } from "./intents";
import type { SeasonView } from "./load";

/** What can be fixed and ruled out by hand on a night. */
export function ByHand({
  view,
  night,
  planned,
  act,
}: {
  readonly view: SeasonView;
  readonly night: NightDate;
  readonly planned: ReadonlySet<string>;
  readonly act: (intent: SeasonIntent) => void;
}) {
  const locks = view.locks.filter((l) => l.night === night);
  const free = locks.filter((l) => l.does === "forbid" && l.projectId === undefined && l.placeId === undefined);
  const stretches = locks.filter((l) => l.channel !== undefined);
  const at = locks.filter((l) => l.placeId !== undefined);
  const places = view.plannedPlaces.filter((id) => !at.some((l) => l.placeId === id));
  const quiet = "text-soft hover:text-ink min-h-6 underline underline-offset-4";
  return (
    <div className="border-rule mt-3 border-t pt-2">
      <p className="text-note text-soft">By hand</p>
      <ul>
        {view.projects
          .filter((p) => p.channels.length > 0)
          .map((p) => {
            const lock = locks.find((l) => l.projectId === p.id && l.channel === undefined);
            const about = { projectId: p.id };
            return (
              <li key={p.id} className="flex flex-wrap items-baseline gap-x-3">
                <span className="min-w-0 flex-1 truncate">{p.name}</span>
                {lock ? (
                  <button
                    type="button"
                    className={quiet}
                    aria-label={lock.does === "fix" ? `Kept: let go of ${p.name}` : `Ruled out: allow ${p.name} again`}
                    onClick={() => act({ act: "unlock", ids: [lock.id] })}
                  >
                    {lock.does === "fix" ? "kept: let go" : "ruled out: allow"}
                  </button>
                ) : (
                  <>
                    <button
                      type="button"
                      className={quiet}
                      aria-label={`${planned.has(p.id) ? "Keep" : "This instead"}: ${p.name}`}
                      onClick={() => act({ act: "lock", night, about: { does: "fix", ...about } })}
                    >
                      {planned.has(p.id) ? "keep" : "this instead"}
                    </button>
                    {planned.has(p.id) ? (
                      <button
                        type="button"
                        className={quiet}
                        aria-label={`Not then: ${p.name}`}
                        onClick={() => act({ act: "lock", night, about: { does: "forbid", ...about } })}
                      >
                        not then
                      </button>
                    ) : null}
                  </>
                )}
              </li>
            );
          })}
      </ul>
      {stretches.length + at.length > 0 ? (
        <ul className="border-rule mt-2 border-t pt-1">
          {[...stretches, ...at].map((l) => {
            const what = l.placeId
              ? view.placeNames[l.placeId]
              : `${view.projects.find((p) => p.id === l.projectId)?.name ?? ""} in ${l.channel}`;
            return (
              <li key={l.id} className="flex flex-wrap items-baseline gap-x-3">
                <span className="min-w-0 flex-1 truncate">{what}</span>
                <button
                  type="button"
                  className={quiet}
                  aria-label={l.does === "fix" ? `Kept: let go of ${what}` : `Ruled out: allow ${what} again`}
                  onClick={() => act({ act: "unlock", ids: [l.id] })}
                >
                  {l.does === "fix" ? "kept: let go" : "ruled out: allow"}
                </button>
              </li>
            );
          })}
        </ul>
      ) : null}
      {view.plannedPlaces.length > 1 && places.length > 0 ? (
        <ul className="border-rule mt-2 border-t pt-1">
          {places.map((id) => (
            <li key={id} className="flex flex-wrap items-baseline gap-x-3">
              <span className="min-w-0 flex-1 truncate">{view.placeNames[id]}</span>
              <button
                type="button"
                className={quiet}
                aria-label={`Be there: ${view.placeNames[id]}`}
                onClick={() => act({ act: "lock", night, about: { does: "fix", placeId: id } })}
              >
                be there
              </button>
              <button
                type="button"
                className={quiet}
                aria-label={`Not there: ${view.placeNames[id]}`}
                onClick={() => act({ act: "lock", night, about: { does: "forbid", placeId: id } })}
              >
                not there
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      {free.length > 0 ? (
        <Button className="mt-2" onClick={() => act({ act: "unlock", ids: free.map((l) => l.id) })}>
          Use the night again
        </Button>
      ) : (
        <Button className="mt-2" onClick={() => act({ act: "lock", night, about: { does: "forbid" } })}>
          Keep the night free
        </Button>
      )}
    </div>
  );
}

/** One stretch kept or ruled out by hand: its channel, where its project has others. */
export function BlockByHand({
  block,
  view,
  night,
  name,
  act,
}: {
  readonly block: PlannedBlock;
  readonly view: SeasonView;
  readonly night: NightDate;
  readonly name: string;
  readonly act: (intent: SeasonIntent) => void;
}) {
  const { projectId, channel } = block;
  const project = view.projects.find((p) => p.id === projectId);
  if ((project?.channels.length ?? 0) < 2) return null;
  const isKept = view.locks.some((l) => l.night === night && l.projectId === projectId && l.channel === channel);
  const what = `${name} in ${channelsText(block)}`;
  const quiet = "text-soft hover:text-ink min-h-6 underline underline-offset-4";
  const lock = (does: "fix" | "forbid") => act({ act: "lock", night, about: { does, projectId, channel } });
  return (
    <span className="text-note flex gap-3">
      {isKept ? null : (
        <button type="button" className={quiet} aria-label={`Keep this stretch: ${what}`} onClick={() => lock("fix")}>
          keep this stretch
        </button>
      )}
      <button type="button" className={quiet} aria-label={`Not this one: ${what}`} onClick={() => lock("forbid")}>
        not this one
      </button>
    </span>
  );
}
