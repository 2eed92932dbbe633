import { useDesk } from "~/at-desk";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { MONTHS } from "~/components/clock";
import { entryTitle } from "~/components/words/target-words";
import { Button } from "~/components/ui/Button";
import { Section } from "~/components/ui/Panel";
import { Progress } from "~/components/ui/Progress";
import { formatMinutes } from "~/core/notation";
import { orAborted, type BestOfMonth } from "~/desk/sky/answers";
import type { SeasonView } from "./load";

const MONTHS_AHEAD = 12;
const BEST = 5;

/** What is best in which month here: the head of the list of targets on the darkest night of each of the coming months. */
export function MonthsBest({ ask, search }: { readonly ask: NonNullable<SeasonView["ask"]>; readonly search: string }) {
  const desk = useDesk();
  const [months, setMonths] = useState<readonly BestOfMonth[]>([]);
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const stop = useRef<AbortController | null>(null);
  const look = async () => {
    const controller = new AbortController();
    stop.current = controller;
    setBusy(true);
    setFault(null);
    setMonths([]);
    try {
      const found: BestOfMonth[] = [];
      for (let m = 0; m < MONTHS_AHEAD; m++) {
        found.push(await orAborted(desk.workers.sky.bestIn(m, ask, BEST), controller.signal));
        setMonths([...found]);
      }
    } catch (error) {
      if (!controller.signal.aborted) setFault(error instanceof Error ? error.message : "unknown");
    }
    setBusy(false);
  };
  return (
    <Section title="Best in which month here" aside="darkest night of each month, whole catalogue, as under Targets">
      {isBusy ? (
        <Progress
          words="Looking through the catalogue month by month …"
          share={months.length / MONTHS_AHEAD}
          onStop={() => stop.current?.abort(new Error("stopped"))}
        />
      ) : months.length === 0 ? (
        <Button className="mt-2" onClick={() => void look()}>
          Look through the catalogue
        </Button>
      ) : null}
      {fault ? <p className="text-rust">It could not be looked through: {fault}.</p> : null}
      <ul>
        {months.map((m) => (
          <li key={m.night} className="border-rule grid grid-cols-[3rem_minmax(0,1fr)] gap-x-3 border-t py-1">
            <b>{MONTHS[Number(m.night.slice(5, 7)) - 1]}</b>
            <span>
              {m.best.map(({ entry, usableMin, channel }, i) => (
                <span key={entry.id}>
                  {i > 0 ? " · " : ""}
                  <Link to={`/targets/${encodeURIComponent(entry.id)}${search}`} className="hover:underline">
                    {entryTitle(entry)}
                  </Link>{" "}
                  <span className="text-note text-soft">
                    {channel} {formatMinutes(usableMin)}
                  </span>
                </span>
              ))}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}
