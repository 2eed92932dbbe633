import { useEffect, useRef, useState } from "react";
import { useDesk } from "~/at-desk";
import { downloadBlob } from "~/components/download";
import { Button } from "~/components/ui/Button";
import { Progress } from "~/components/ui/Progress";
import { counted, megabytes } from "~/components/numbers";
import { fileBytes } from "~/core/exposure";
import { REHEARSAL_FOLDER } from "~/desk/log/landings";
import { theWatchedFolder } from "~/desk/log/watched-folder";
import type { RehearsalView } from "./load";

const CROP_PX = 1024;
const MOST_BYTES = 1.5e9; // a zip lies in memory until it is saved
const FAILED = "The frames could not be made: too little room, or the worker stopped.";

/** The frames of the night as files: real FITS, marked as simulated. */
export function Frames({ view }: { readonly view: RehearsalView }) {
  const desk = useDesk();
  const [share, setShare] = useState<number | null>(null);
  const [said, setSaid] = useState("");
  const [isWhole, setWhole] = useState(false);
  const [isCalibrated, setCalibrated] = useState(false);
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const { night, seed, ways, played } = view;
  const bytes = played.subs.reduce((sum, { rig }) => {
    const { sensor } = night.rigs[rig]!.rig;
    return sum + fileBytes({ sensor: isWhole ? sensor : { ...sensor, widthPx: Math.min(sensor.widthPx, CROP_PX * sensor.binning), heightPx: Math.min(sensor.heightPx, CROP_PX * sensor.binning) } }); // prettier-ignore
  }, 0);
  const isTooMuch = bytes > MOST_BYTES;
  const zip = () => {
    const controller = new AbortController();
    running.current = controller;
    setShare(0);
    setSaid("");
    desk.workers.rehearsal
      .zip({ night, seed, ways }, isWhole ? null : CROP_PX, isCalibrated, controller.signal, (done, of) =>
        setShare(done / of),
      )
      .then(
        (blob) => {
          downloadBlob(`rehearsal-${night.night}-simulated.zip`, blob);
          setSaid(`${counted(played.subs.length, "frame")} written.`);
        },
        () => setSaid(controller.signal.aborted ? "Stopped: nothing was written." : FAILED),
      )
      .finally(() => setShare(null));
  };
  const land = () => {
    const controller = new AbortController();
    running.current = controller;
    setShare(0);
    setSaid("");
    const work = async () => {
      const isOn = await desk.at(theWatchedFolder).watchOwn(REHEARSAL_FOLDER);
      if (!isOn)
        return setSaid(
          "Nothing was written: a folder is being watched already, here or in another tab, or this browser has none for it.",
        );
      const cropPx = isWhole ? null : CROP_PX;
      const count = await desk.workers.rehearsal.write({ night, seed, ways }, REHEARSAL_FOLDER, cropPx, controller.signal, (done, of) => setShare(done / of)); // prettier-ignore
      setSaid(`${counted(count, "frame")} landed. The log takes them in like any other, marked as simulated; there they are taken out again by one press.`); // prettier-ignore
    };
    work()
      .catch(() => setSaid(controller.signal.aborted ? "Stopped: what had landed is in the log." : FAILED))
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
      <label className="mt-1 flex items-center gap-2">
        <input type="checkbox" checked={isCalibrated} onChange={(e) => setCalibrated(e.target.checked)} />
        In the zip ten darks, bias and flats of each kind as well
      </label>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={zip} disabled={share !== null || played.subs.length === 0 || isTooMuch}>
          {counted(played.subs.length, "frame")} as a zip, {megabytes(bytes)}
        </Button>
        {view.of === "sheet" ? (
          <Button onClick={land} disabled={share !== null || played.subs.length === 0 || isTooMuch}>
            Let them land in a watched folder
          </Button>
        ) : null}
      </div>
      {isTooMuch ? (
        <p className="text-soft mt-1">
          {megabytes(bytes)} are more than a browser holds at once: take the middle of the sensor.
        </p>
      ) : null}
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
