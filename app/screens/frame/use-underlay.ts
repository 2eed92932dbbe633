import { useCallback, useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { LaidPicture } from "~/drawing";
import type { KeptPicture } from "~/desk/projects/pictures";
import type { PictureAnswer } from "./intents";

const SAVE_AFTER_MS = 600; // the strength is drawn along a slider

/** The picture under the chart of a frame: laid down as it was kept, and kept again when it changes. */
export function useUnderlay(frameId: string, kept: KeptPicture | null, action: string) {
  const [underlay, setUnderlay] = useState<LaidPicture | null>(null);
  const { submit, data: answer, state } = useFetcher<PictureAnswer>({ key: `picture-${frameId}` });
  const first = useRef(kept);
  const unsaved = useRef<{ readonly next: LaidPicture | null } | null>(null);
  useEffect(() => {
    let isCurrent = true;
    const picture = first.current;
    if (picture) {
      const file = new Blob([picture.bytes], { type: picture.type });
      void createImageBitmap(file).then(
        (image) => isCurrent && setUnderlay({ ...picture, file, image, widthPx: image.width, heightPx: image.height }),
        () => undefined, // bytes that are no picture any more: the frame works without
      );
    }
    return () => {
      isCurrent = false;
    };
  }, []);
  const save = useCallback(() => {
    if (!unsaved.current) return;
    const { next } = unsaved.current;
    unsaved.current = null;
    const form = new FormData();
    form.set("id", frameId);
    if (next) {
      const { name, mesh, opacity, corners } = next;
      form.set("picture", JSON.stringify({ name, mesh, opacity, corners }));
      form.set("file", next.file);
    }
    void submit(form, { method: "post", action, encType: "multipart/form-data" });
  }, [submit, frameId, action]);
  useEffect(() => {
    if (!unsaved.current) return;
    const timer = setTimeout(save, SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [underlay, save]);
  useEffect(() => {
    // Hidden or left within the half second it is kept at once; a picture is too large to be written down as a draft.
    const onHidden = () => document.visibilityState === "hidden" && save();
    document.addEventListener("visibilitychange", onHidden);
    return () => {
      document.removeEventListener("visibilitychange", onHidden);
      save();
    };
  }, [save]);
  const lay = useCallback(
    (next: LaidPicture | null) => {
      const isStrengthOnly = next !== null && next.mesh === underlay?.mesh;
      unsaved.current = { next };
      setUnderlay(next);
      if (!isStrengthOnly) save();
    },
    [underlay, save],
  );
  const status = state !== "idle" ? "Keeping the picture …" : (answer?.said ?? "");
  return { underlay, lay, status, refusal: answer?.refusal ?? null };
}
