import { useEffect, useRef, useState } from "react";
import { useDesk } from "~/at-desk";
import { Button } from "~/components/ui/Button";
import { Progress } from "~/components/ui/Progress";
import { counted } from "~/components/numbers";
import { formatSpan } from "~/core/notation";
import type { Judged, WayRecord } from "~/core/rehearsal";
import { MINUTE_MS } from "~/core/time";
import type { RehearsalView } from "./load";
import { broughtWords, decisionWords, doesWords } from "./rehearsal-words";

const span = (min: number): string => formatSpan(min * MINUTE_MS);

/** What every decision brought, beside the advice and the best there was. */
export function Hindsight({ view }: { readonly view: RehearsalView }) {
  const desk = useDesk();
  const [judged, setJudged] = useState<readonly Judged[]>([]);
  const [fault, setFault] = useState(false);
  const { night, seed, ways, played } = view;
  useEffect(() => {
    const controller = new AbortController();
    desk.workers.rehearsal
      .judge({ night, seed, ways }, controller.signal, (one) => setJudged((known) => [...known, one]))
      .catch(() => setFault(!controller.signal.aborted));
    return () => controller.abort();
  }, [desk, night, seed, ways]);
  const all = played.decided.length;
  if (all === 0) return <p className="mt-3">Nothing had to be decided: the sheet went as it stood.</p>;
  return (
    <section aria-label="Decision by decision" className="mt-4">
      <h2 className="text-title">Decision by decision</h2>
      <ol className="mt-2">
        {judged.map((j) => (
          <li key={`${j.decision.atMs} ${j.decision.rig}`} className="border-rule border-t py-2">
            <p>{decisionWords(j.decision, view.zone)}</p>
            <dl className="mt-1 grid gap-x-6 gap-y-1 sm:grid-cols-3">
              <div>
                <dt className="text-note text-soft">Yours</dt>
                <dd>
                  {doesWords(j.does)}: {span(j.yours.keptMin)} kept
                </dd>
              </div>
              <div>
                <dt className="text-note text-soft">By the advice from here on</dt>
                <dd>
                  {doesWords(j.advised)}: {span(j.advice.keptMin)} kept
                </dd>
              </div>
              <div>
                <dt className="text-note text-soft">The best, knowing the night</dt>
                <dd>
                  {doesWords(j.bestWay)}: {span(j.best.keptMin)} kept, {span(j.best.upMin)} up
                </dd>
              </div>
            </dl>
          </li>
        ))}
      </ol>
      {judged.length < all && !fault ? (
        <Progress words="The other ways are being played …" share={judged.length / all} />
      ) : null}
      {fault ? <p className="text-rust mt-2">The other ways could not be played: the worker stopped.</p> : null}
      <p className="text-note text-soft mt-2 max-w-[75ch]">
        Kept: exposure of the whole night. Of ways that keep the same the one with less time up is better; darks count a
        tenth. The best is the best that was found by playing this very sky again with other ways.
      </p>
    </section>
  );
}

const SEEDS = Array.from({ length: 10 }, (_, i) => i + 1);

/** Ten skies in a row: how often each way under cloud did best. */
export function OtherSkies({ view }: { readonly view: RehearsalView }) {
  const desk = useDesk();
  const [told, setTold] = useState<{ nights: number; ways: readonly WayRecord[] } | "none" | "busy" | "fault" | null>(null); // prettier-ignore
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const ask = () => {
    running.current = new AbortController();
    setTold("busy");
    desk.workers.rehearsal.seeds(view.night, SEEDS, running.current.signal).then(
      (found) => setTold(found ?? "none"),
      () => setTold("fault"),
    );
  };
  return (
    <section aria-label="Ten other skies" className="mt-4">
      <Button onClick={ask} disabled={told === "busy"}>
        Ten skies from this forecast
      </Button>
      {told === "busy" ? (
        <Progress words="Ten nights are being played …" share={null} onStop={() => running.current?.abort()} />
      ) : null}
      {told === "none" ? <p className="mt-2">In none of ten the sky closed during the sheet.</p> : null}
      {told === "fault" ? <p className="mt-2">They were not played.</p> : null}
      {typeof told === "object" && told ? (
        <>
          <p className="mt-2">
            The sky closed in {counted(told.nights, "night")} of ten. What the first decision under it brought, the
            advice followed afterwards:
          </p>
          <ul className="mt-1">
            {told.ways.map((w) => (
              <li key={w.does}>
                {doesWords(w.does)}: best in {w.bestIn} of {w.nights}; {span(w.meanKeptMin)} kept and{" "}
                {span(w.meanUpMin)} up on average
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </section>
  );
}

/** How the night ended, in a sentence. */
export const Ending = ({ view }: { readonly view: RehearsalView }) => (
  <p className="text-figure mt-1">{broughtWords(view.played.brought)}.</p>
);
