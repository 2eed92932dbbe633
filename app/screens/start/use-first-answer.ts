import { useDesk } from "~/at-desk";
import { useEffect, useMemo, useState } from "react";
import { firstAnswer, type FirstAnswer, type StartKit, type StartPlace } from "~/desk/kit/start";

/** How the first answer stands. */
export type FirstAnswerState =
  | { readonly kind: "none" | "waiting" }
  | { readonly kind: "known"; readonly answer: FirstAnswer }
  | { readonly kind: "failed"; readonly reason: string };

/** The first answer for a place and a kit, once both are known; a newer choice takes the place of an older one. */
export function useFirstAnswer(place: StartPlace | null, kit: StartKit | null): FirstAnswerState {
  const desk = useDesk();
  const key = place && kit ? JSON.stringify([place, kit]) : null;
  const [state, setState] = useState<{ readonly key: string; readonly it: FirstAnswerState } | null>(null);
  const question = useMemo(() => (key === null ? null : (JSON.parse(key) as [StartPlace, StartKit])), [key]);
  useEffect(() => {
    if (key === null || question === null) return;
    let isCurrent = true;
    performance.mark("first answer asked"); // read by the bench
    firstAnswer(desk, ...question).then(
      (answer) => {
        performance.measure("first answer", "first answer asked");
        if (isCurrent) setState({ key, it: { kind: "known", answer } });
      },
      (error: unknown) => {
        const reason = error instanceof Error ? error.message : "no answer";
        if (isCurrent) setState({ key, it: { kind: "failed", reason } });
      },
    );
    return () => {
      isCurrent = false;
    };
  }, [desk, key, question]);
  if (key === null) return { kind: "none" };
  if (state?.key === key) return state.it;
  // While a value is typed, the answer before it stays where it is.
  return state?.it.kind === "known" ? state.it : { kind: "waiting" };
}
