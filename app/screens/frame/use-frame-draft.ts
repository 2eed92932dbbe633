import { useCallback, useEffect, useRef } from "react";
import { useFetcher, useSubmit, type SubmitTarget } from "react-router";
import { useHistory } from "~/components/use-history";
import type { FrameData } from "~/core/plan";
import type { Entity } from "~/desk/library";
import type { FrameAnswer, FrameIntent } from "./intents";

const SAVE_AFTER_MS = 500;

/** A frame being worked on: kept by itself half a second after the last change and at once when the page is left; Ctrl Z goes back, a whole drag at once. */
export function useFrameDraft(kept: Entity<FrameData>, action: string) {
  const fetcherKey = `frame-${kept.id}`;
  const { data: answer, state } = useFetcher<FrameAnswer>({ key: fetcherKey });
  const submit = useSubmit();
  const base = useRef(kept.rev); // the version this page builds upon
  const unsaved = useRef<FrameData | null>(null);
  const travel = useCallback((now: FrameData) => {
    unsaved.current = now;
  }, []);
  const { now: frame, put, begin, commit, undo, redo, canUndo, canRedo } = useHistory<FrameData>(kept.data, travel);

  useEffect(() => {
    const rev = answer?.revs[kept.id];
    if (rev) base.current = rev;
  }, [answer, kept.id]);
  const save = useCallback(() => {
    if (!unsaved.current) return;
    const intent: FrameIntent = { act: "save", id: kept.id, data: unsaved.current, baseRev: base.current };
    unsaved.current = null;
    void submit(intent as unknown as SubmitTarget, {
      method: "post",
      action,
      navigate: false,
      fetcherKey,
      encType: "application/json",
    });
  }, [submit, kept.id, action, fetcherKey]);
  useEffect(() => {
    if (frame === kept.data || !unsaved.current) return;
    const timer = setTimeout(save, SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [frame, kept.data, save]);
  useEffect(() => {
    window.addEventListener("pagehide", save); // closed within the half second: it is still begun
    return () => {
      window.removeEventListener("pagehide", save);
      save();
    };
  }, [save]);

  const change = useCallback(
    (part: Partial<FrameData>) => {
      const next = { ...frame, ...part };
      unsaved.current = next;
      put(next);
    },
    [frame, put],
  );
  const status = state !== "idle" ? "Keeping …" : answer && !answer.refusal ? "Kept." : "";
  return { frame, change, begin, commit, undo, redo, canUndo, canRedo, status, refusal: answer?.refusal ?? null };
}
