import { useDesk } from "~/at-desk";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useFetcher, useSubmit, type SubmitTarget } from "react-router";
import { useHistory } from "~/components/use-history";
import type { FrameData } from "~/core/plan";
import type { Entity } from "~/desk/records/library";
import { holdBack, letGo, putDown, takeUp } from "~/desk/records/pending";
import type { FrameAnswer, FrameIntent } from "./intents";

const SAVE_AFTER_MS = 500;

/**
 * A frame being worked on: written down with every change, kept by itself half a second after the last one and at once when the
 * page is left; Ctrl Z goes back, a whole drag at once. A change of panels that have hours (`asks`) waits until somebody has said
 * what becomes of them; it is written down all the same.
 */
export function useFrameDraft(
  kept: Entity<FrameData>,
  held: FrameData | null,
  action: string,
  asks: (next: FrameData) => boolean,
) {
  const desk = useDesk();
  const fetcherKey = `frame-${kept.id}`;
  const { data: answer, state } = useFetcher<FrameAnswer>({ key: fetcherKey });
  const submit = useSubmit();
  const base = useRef(kept.rev); // the version this page builds upon
  const unsaved = useRef<FrameData | null>(null);
  const sent = useRef<FrameData | null>(null); // on its way to be kept, before anything of that is to be seen in `state`
  const write = useCallback(
    (data: FrameData) => {
      const edit = { kind: "frame", id: kept.id, data, baseRev: base.current } as const;
      if (asks(data)) {
        unsaved.current = null;
        takeUp(desk, edit);
        holdBack(desk, edit);
      } else {
        unsaved.current = data;
        letGo(desk, edit);
        putDown(desk, edit);
      }
    },
    [desk, kept.id, asks],
  );
  const [first] = useState(held ?? kept.data);
  const { now: frame, put, begin, commit, undo, redo, canUndo, canRedo } = useHistory<FrameData>(first, write);
  const isHeld = useMemo(() => asks(frame), [asks, frame]);

  useEffect(() => {
    if (!answer) return;
    sent.current = null;
    base.current = answer.revs[kept.id] ?? base.current;
  }, [answer, kept.id]);
  // Another version counts now, chosen here among copies or kept by another tab: followed, unless something is being changed.
  useEffect(() => {
    if (state !== "idle" || unsaved.current || sent.current || isHeld || kept.rev === base.current) return;
    base.current = kept.rev;
    put(kept.data);
  }, [kept, answer, state, isHeld, put]);
  const save = useCallback(() => {
    if (!unsaved.current) return;
    const intent: FrameIntent = { act: "save", id: kept.id, data: unsaved.current, baseRev: base.current };
    [sent.current, unsaved.current] = [unsaved.current, null];
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
  /** Gives up what waits. */
  const putBack = () => {
    letGo(desk, { kind: "frame", id: kept.id });
    put(kept.data);
  };
  const status = isHeld ? "Not kept yet." : state !== "idle" ? "Keeping …" : answer && !answer.refusal ? "Kept." : "";
  return {
    isHeld,
    putBack,
    frame,
    change,
    begin,
    commit,
    undo,
    redo,
    canUndo,
    canRedo,
    status,
    refusal: answer?.refusal ?? null,
  };
}
