import { useCallback } from "react";
import { useFetcher, type SubmitTarget } from "react-router";
import type { KeepFault } from "~/core/records";

interface Refusable {
  readonly refusal?: KeepFault | null;
}

/** Posts a screen's typed intents to its own action, one at a time; what came of the last one comes back. */
export function useAct<Intent, Answer extends Refusable = Refusable>(options: { readonly key?: string } = {}) {
  const { submit, data, state } = useFetcher<Answer>(options);
  const act = useCallback(
    (intent: Intent) => submit(intent as SubmitTarget, { method: "post", encType: "application/json" }),
    [submit],
  );
  return { act, answer: data, refusal: data?.refusal ?? null, isBusy: state !== "idle" };
}
