import { useEffect, useRef, useState } from "react";
import { useDesk } from "~/at-desk";
import { downloadBlob } from "~/components/download";
import { Button } from "~/components/ui/Button";
import { Progress } from "~/components/ui/Progress";
import { counted } from "~/components/numbers";
import type { RehearsalView } from "./load";

const CROP_PX = 1024;

/** The frames of the night as files: real FITS, marked as simulated. */
export function Frames({ view }: { readonly view: RehearsalView }) {
  const desk = useDesk();
  const [share, setShare] = useState<number | null>(null);
  const [said, setSaid] = useState("");
  const [isWhole, setWhole] = useState(false);
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const { night, seed, ways, played } = view;
  const zip = () => {
    const controller = new AbortController();
    running.current = controller;
    setShare(0);
    setSaid("");
    desk.workers.rehearsal
      .zip({ night, seed, ways }, isWhole ? null : CROP_PX, controller.signal, (done, of) => setShare(done / of))
      .then(
        (blob) => {
          downloadBlob(`rehearsal-${night.night}-simulated.zip`, blob);
          setSaid(`${counted(played.subs.length, "frame")} written.`);
        },
        () =>
          setSaid(
            controller.signal.aborted
              ? "Stopped: nothing was written."
              : "The frames could not be made: too little room, or the worker stopped.",
          ),
      )
      .finally(() => setShare(null));
  };
  return (
    <section aria-label="Frames" className="mt-4">
      <h2 className="text-title">Frames</h2>
      <p className="max-w-[75ch]">
        Every sub of this night as a FITS file: stars of the catalogue and made-up fainter ones, the object as a smooth
        patch, the sky, the camera’s own noise. Marked as simulated in their headers.
      </p>
      <label className="mt-2 flex items-center gap-2">
        <input type="checkbox" checked={isWhole} onChange={(e) => setWhole(e.target.checked)} />
        The whole sensor, not just its middle {CROP_PX} pixels
      </label>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={zip} disabled={share !== null || played.subs.length === 0}>
          {counted(played.subs.length, "frame")} as a zip
        </Button>
      </div>
      {share !== null ? (
        <Progress words="Frames are being made …" share={share} onStop={() => running.current?.abort()} />
      ) : null}
      {said === "" ? null : (
        <p role="status" className="mt-2">
          {said}
        </p>
      )}
    </section>
  );
}
