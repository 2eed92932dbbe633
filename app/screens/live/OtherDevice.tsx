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
  hasPresses,
  isBusy,
  onFile,
  onTakeOver,
}: {
  readonly night: NightDate;
  /** Whether there is anything to show. */
  readonly hasPresses: boolean;
  readonly isBusy: boolean;
  readonly onFile: () => void;
  readonly onTakeOver: (handle: string) => void;
}) {
  const [open, setOpen] = useState<"shown" | "camera" | null>(null);
  return (
    <details className="mb-3">
      <summary className="flex min-h-14 cursor-pointer items-center">With the other device</summary>
      <Suspense fallback={<p role="status">Fetching …</p>}>
        {open === "shown" ? <ShownCodes night={night} /> : null}
        {open === "camera" ? <ReadCodes isBusy={isBusy} onTakeOver={onTakeOver} onEnd={() => setOpen(null)} /> : null}
      </Suspense>
      <div className="mt-2 flex flex-wrap gap-2">
        {hasPresses && open !== "camera" ? (
          <Button className={BIG} onClick={() => setOpen(open === "shown" ? null : "shown")}>
            {open === "shown" ? "Hide the code" : "Show a code"}
          </Button>
        ) : null}
        {open === null && canSee() ? (
          <Button className={BIG} onClick={() => setOpen("camera")}>
            Read a code
          </Button>
        ) : null}
        {open === null && hasPresses ? (
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
