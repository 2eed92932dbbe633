import { useCallback } from "react";
import { useFetcher, type SubmitTarget } from "react-router";
import type { KeepFault } from "~/core/records";

interface Refusable {
  readonly refusal?: KeepFault | null;
}

/** Posts a screen's typed intents to its own action, or to another one; one at a time; what came of the last one comes back. */
export function useAct<Intent, Answer extends Refusable = Refusable>(
  options: { readonly key?: string; readonly action?: string } = {},
) {
  const { key, action } = options;
  const { submit, data, state } = useFetcher<Answer>(key === undefined ? {} : { key });
  const act = useCallback(
    (intent: Intent) =>
      submit(intent as SubmitTarget, {
        method: "post",
        encType: "application/json",
        ...(action === undefined ? {} : { action }),
      }),
    [submit, action],
  );
  return { act, answer: data, refusal: data?.refusal ?? null, isBusy: state !== "idle" };
}
