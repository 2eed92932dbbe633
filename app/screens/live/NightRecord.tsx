import { Link } from "react-router";
import { clockTime } from "~/components/clock";
import { counted } from "~/components/numbers";
import { Button, buttonLook } from "~/components/ui/Button";
import { inOrder, packedUpMs, type Happening, type LiveState } from "~/core/live";
import { BIG, blockKey } from "./LivePresses";
import { happeningWords, toldWords } from "./live-words";
import type { LiveView } from "./load";

/** What was pressed so far, the latest first. */
export const Written = ({ view: { events, zone } }: { readonly view: LiveView }) => (
  <details className="mb-3">
    <summary className="flex min-h-14 cursor-pointer items-center">
      Written down tonight: {counted(events.length, "press", "presses")}
    </summary>
    <ul>
      {inOrder(events)
        .toReversed()
        .map((e) => (
          <li key={e.id}>
            <span className="text-soft">{clockTime(e.atMs, zone)}</span> {happeningWords(e.is, zone)}
          </li>
        ))}
    </ul>
  </details>
);

/** What the presses say was taken, when all is packed up, and what nobody spoke of; the log takes it over, or the files. */
export function Told({
  view,
  state,
  search,
  isBusy,
  onPress,
}: {
  readonly view: LiveView;
  readonly state: LiveState;
  readonly search: string;
  readonly isBusy: boolean;
  readonly onPress: (is: Happening) => void;
}) {
  const silent = state.lines.flatMap((l) => (l.line.kind === "block" && l.state === "gone" ? [l.line] : []));
  return (
    <section aria-label="Taken tonight" className="mt-2">
      <ul className="text-figure">
        {view.told.map((t) => (
          <li key={`${t.of.projectId} ${t.of.startMs}`}>{toldWords(t)}</li>
        ))}
      </ul>
      {silent.length > 0 ? (
        <ul className="mt-3 space-y-3" aria-label="Nobody spoke of">
          {silent.map((block) => {
            const of = blockKey(block);
            const is = { what: "done", of, lost: 0, reason: "" } as const;
            return (
              <li key={`${of.projectId} ${of.startMs}`}>
                <p>
                  {block.channel} on {block.panel}, {clockTime(block.startMs, view.zone)} to{" "}
                  {clockTime(block.endMs, view.zone)}: nobody said what became of it.
                </p>
                <div className="mt-1 flex flex-wrap gap-2">
                  <Button className={BIG} disabled={isBusy} onClick={() => onPress({ ...is, kept: block.subs })}>
                    All {block.subs} kept
                  </Button>
                  <Button className={BIG} disabled={isBusy} onClick={() => onPress({ ...is, kept: 0 })}>
                    Not taken
                  </Button>
                </div>
              </li>
            );
          })}
        </ul>
      ) : null}
      <p className="mt-3 flex flex-wrap gap-2">
        {packedUpMs(inOrder(view.events)) !== null ? (
          <Button className={BIG} disabled={isBusy} onClick={() => onPress({ what: "begun" })}>
            Begun again
          </Button>
        ) : null}
        <Link to={`/log${search}`} className={buttonLook("quiet", "min-h-14 text-lg")}>
          {view.told.length > 0 ? "Into the log, or drop the files there" : "Drop the files into the log"}
        </Link>
      </p>
    </section>
  );
}
