import { useState } from "react";
import { Button } from "~/components/ui/Button";
import { cloudChoices, hoursAhead, type Happening, type LiveState } from "~/core/live";
import { utcMs } from "~/core/time";
import { BIG, LIKELIEST } from "./LivePresses";
import { choiceWords, wayWords } from "~/components/words/cloud-words";
import type { LiveView } from "./load";

/** The ways to go on under a closed sky, each with what it keeps and costs; what was decided stands until somebody changes it. */
export function UnderCloud({
  view,
  state: { decided },
  nowMs,
  isBusy,
  onPress,
}: {
  readonly view: LiveView;
  readonly state: LiveState;
  readonly nowMs: number;
  readonly isBusy: boolean;
  readonly onPress: (is: Happening) => void;
}) {
  const [isAnew, setAnew] = useState(false);
  if (decided && !isAnew)
    return (
      <p className="text-figure mt-3">
        Decided: {wayWords(decided.choice, decided.untilMs, view.zone)}.{" "}
        <Button className="min-h-14 text-lg" onClick={() => setAnew(true)}>
          Decide anew
        </Button>
      </p>
    );
  const hours = hoursAhead(view.sheet, view.hours.map(({ atMs, odds }) => ({ startMs: atMs, odds }))); // prettier-ignore
  const choices = cloudChoices({
    nowMs: utcMs(nowMs),
    hours,
    darksMin: view.darksMin,
    packUpMin: view.packUpMin,
  });
  return (
    <>
      <ul className="mt-3 space-y-3" aria-label="Ways to go on">
        {choices.map((c, i) => (
          <li key={c.does}>
            <Button
              className={i === 0 ? LIKELIEST : BIG}
              disabled={isBusy}
              onClick={() => {
                setAnew(false);
                onPress({ what: "decided", choice: c.does, untilMs: c.untilMs });
              }}
            >
              {wayWords(c.does, c.untilMs, view.zone)}
            </Button>
            <p className="text-soft mt-0.5">{choiceWords(c)}</p>
          </li>
        ))}
      </ul>
      <p className="text-note text-soft mt-2">
        To be expected: the sheet’s exposure in each hour times the chance that it is usable, all sources pooled.
      </p>
    </>
  );
}
