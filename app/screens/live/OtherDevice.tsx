import { lazy, Suspense, useState } from "react";
import { Button } from "~/components/ui/Button";
import type { NightDate } from "~/core/time";
import { BIG } from "./LivePresses";
import { canSee } from "./use-camera";

const load = () => import("./Codes");
const ShownCodes = lazy(() => load().then((m) => ({ default: m.ShownCodes })));
const ReadCodes = lazy(() => load().then((m) => ({ default: m.ReadCodes })));

/** From the phone to the laptop and back: by codes from screen to camera, or by a file. None of it counts twice. */
export function OtherDevice({
  night,
  written,
  isBusy,
  onFile,
  onTakeOver,
}: {
  readonly night: NightDate;
  /** How much of the night is written down here: with more, the codes are others. */
  readonly written: number;
  readonly isBusy: boolean;
  readonly onFile: () => void;
  readonly onTakeOver: (handle: string) => void;
}) {
  const [open, setOpen] = useState<"shown" | "camera" | null>(null);
  return (
    // Closed, it lets the camera go.
    <details className="mb-3" onToggle={(e) => (e.currentTarget.open ? undefined : setOpen(null))}>
      <summary className="flex min-h-14 cursor-pointer items-center">With the other device</summary>
      <Suspense fallback={<p role="status">Fetching …</p>}>
        {open === "shown" ? <ShownCodes key={written} night={night} /> : null}
        {open === "camera" ? <ReadCodes isBusy={isBusy} onTakeOver={onTakeOver} onEnd={() => setOpen(null)} /> : null}
      </Suspense>
      <div className="mt-2 flex flex-wrap gap-2">
        {written > 0 && open !== "camera" ? (
          <Button className={BIG} onClick={() => setOpen(open === "shown" ? null : "shown")}>
            {open === "shown" ? "Hide the code" : "Show a code"}
          </Button>
        ) : null}
        {open === null && canSee() ? (
          <Button className={BIG} onClick={() => setOpen("camera")}>
            Read a code
          </Button>
        ) : null}
        {open === null && written > 0 ? (
          <Button className={BIG} onClick={onFile}>
            This night as a file
          </Button>
        ) : null}
      </div>
      <p className="text-soft mt-1">
        What was pressed here goes to the other device, and back, by codes from screen to camera, or by a file that is
        opened there under Kit, Data. None counts twice.
      </p>
    </details>
  );
}
