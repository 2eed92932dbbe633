import { useCallback, useEffect, useRef, useState } from "react";
import { useFetcher, useSubmit, type SubmitTarget } from "react-router";
import type { FrameData } from "~/core/plan";
import type { Entity } from "~/desk/library";
import type { FrameAnswer, FrameIntent } from "./intents";

const SAVE_AFTER_MS = 500;
const STEPS_KEPT = 100;

/** A frame being worked on: kept by itself half a second after the last change and at once when the page is left; Ctrl Z goes back. */
export function useFrameDraft(kept: Entity<FrameData>, action: string) {
  const [frame, setFrame] = useState<FrameData>(kept.data);
  const [past, setPast] = useState<readonly FrameData[]>([]);
  const fetcherKey = `frame-${kept.id}`;
  const { data: answer, state } = useFetcher<FrameAnswer>({ key: fetcherKey });
  const submit = useSubmit();
  const base = useRef(kept.rev); // the version this page builds upon
  const unsaved = useRef<FrameData | null>(null);

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

  const put = useCallback((next: FrameData) => {
    unsaved.current = next;
    setFrame(next);
  }, []);
  const change = useCallback(
    (part: Partial<FrameData>) => {
      setPast((all) => [...all.slice(1 - STEPS_KEPT), frame]);
      put({ ...frame, ...part });
    },
    [frame, put],
  );
  const undo = useCallback(() => {
    const before = past.at(-1);
    if (!before) return;
    setPast(past.slice(0, -1));
    put(before);
  }, [past, put]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const isUndo = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z";
      if (!isUndo || (event.target as HTMLElement).closest("input, textarea")) return;
      event.preventDefault();
      undo();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [undo]);

  const status = state !== "idle" ? "Keeping …" : answer && !answer.refusal ? "Kept." : "";
  return { frame, change, undo, canUndo: past.length > 0, status, refusal: answer?.refusal ?? null };
}
