import { useCallback, useEffect, useRef } from "react";
import { useFetcher, useSubmit, type SubmitTarget } from "react-router";
import { useHistory } from "~/components/use-history";
import type { FrameData } from "~/core/plan";
import type { Entity } from "~/desk/library";
import { crossOut, putDown } from "~/desk/pending";
import type { FrameAnswer, FrameIntent } from "./intents";

const SAVE_AFTER_MS = 500;

/**
 * A frame being worked on: written down with every change, kept by itself half a second after the last one and at once when the
 * page is left; Ctrl Z goes back, a whole drag at once.
 */
export function useFrameDraft(kept: Entity<FrameData>, action: string) {
  const fetcherKey = `frame-${kept.id}`;
  const { data: answer, state } = useFetcher<FrameAnswer>({ key: fetcherKey });
  const submit = useSubmit();
  const base = useRef(kept.rev); // the version this page builds upon
  const unsaved = useRef<{ readonly data: FrameData; readonly stamp: number } | null>(null);
  /** States that are on their way to the store, by the save they went with. */
  const sent = useRef<number | null>(null);
  const write = useCallback(
    (data: FrameData) => {
      unsaved.current = { data, stamp: putDown({ kind: "frame", id: kept.id, data, baseRev: base.current }) };
    },
    [kept.id],
  );
  const travel = write;
  const { now: frame, put, begin, commit, undo, redo, canUndo, canRedo } = useHistory<FrameData>(kept.data, travel);

  useEffect(() => {
    const rev = answer?.revs[kept.id];
    if (!rev) return;
    base.current = rev;
    if (sent.current !== null) crossOut({ kind: "frame", id: kept.id }, sent.current);
    sent.current = null;
  }, [answer, kept.id]);
  const save = useCallback(() => {
    if (!unsaved.current) return;
    const { data, stamp } = unsaved.current;
    const intent: FrameIntent = { act: "save", id: kept.id, data, baseRev: base.current };
    unsaved.current = null;
    sent.current = stamp;
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
    // Hidden or left within the half second it is kept at once; a page that is gone before that leaves it to the next one.
    const onHidden = () => document.visibilityState === "hidden" && save();
    document.addEventListener("visibilitychange", onHidden);
    return () => {
      document.removeEventListener("visibilitychange", onHidden);
      save();
    };
  }, [save]);

  const change = useCallback(
    (part: Partial<FrameData>) => {
      const next = { ...frame, ...part };
      write(next);
      put(next);
    },
    [frame, put, write],
  );
  const status = state !== "idle" ? "Keeping …" : answer && !answer.refusal ? "Kept." : "";
  return { frame, change, begin, commit, undo, redo, canUndo, canRedo, status, refusal: answer?.refusal ?? null };
}
