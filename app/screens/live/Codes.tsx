import { create } from "qrcode";
import { memo, useEffect, useRef, useState } from "react";
import { useDesk } from "~/at-desk";
import { counted } from "~/components/numbers";
import { Refusal } from "~/components/ui/Panel";
import { Button } from "~/components/ui/Button";
import { withCode, type CodesRead } from "~/core/formats";
import type { NightDate } from "~/core/time";
import { lookIntoCodes, nightCodes, type NightBrought } from "~/desk/plan/exchange";
import { BIG, LIKELIEST } from "./LivePresses";
import { useCamera } from "./use-camera";

const CHANGES_MS = 350; // a camera takes two to four pictures of each
const QUIET = 4; // modules of rim that ISO/IEC 18004 asks for

/** One code, as squares on a light ground; drawn anew only for another one, though its page follows the clock. */
const Code = memo(function Code({ code, words }: { readonly code: string; readonly words: string }) {
  const { modules } = create(code, { errorCorrectionLevel: "L" });
  const squares: string[] = [];
  for (let row = 0; row < modules.size; row++)
    for (let col = 0; col < modules.size; col++)
      if (modules.get(row, col)) squares.push(`M${col + QUIET} ${row + QUIET}h1v1h-1z`);
  const size = modules.size + 2 * QUIET;
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      className="w-full max-w-[30rem]"
      role="img"
      aria-label={words}
      shapeRendering="crispEdges"
    >
      <rect width={size} height={size} className="fill-(--code-light)" />
      <path d={squares.join("")} className="fill-(--code-dark)" />
    </svg>
  );
});

/** Tonight's presses as codes, one after the other, for the other device to read from this screen. */
export function ShownCodes({ night }: { readonly night: NightDate }) {
  const desk = useDesk();
  const [codes, setCodes] = useState<readonly string[] | null | undefined>(undefined);
  const [at, setAt] = useState(0);
  useEffect(() => {
    let isGone = false;
    void nightCodes(desk, night).then((c) => !isGone && setCodes(c));
    return () => {
      isGone = true;
    };
  }, [desk, night]);
  const count = codes?.length ?? 0;
  useEffect(() => {
    if (count < 2) return;
    const timer = setInterval(() => setAt((n) => n + 1), CHANGES_MS);
    return () => clearInterval(timer);
  }, [count]);
  if (codes === undefined) return <p role="status">Drawing the code …</p>;
  if (codes === null) return <p>Too much for codes: take the file.</p>;
  const number = at % count;
  return (
    <figure className="mt-3">
      <Code code={codes[number]!} words={`Code ${number + 1} of ${count}`} />
      <figcaption className="text-soft mt-1">
        {count === 1 ? "One code" : `${count} codes, one after the other`}: on the other device press “Read a code”, and
        hold its camera so that the whole square is in the picture.
      </figcaption>
    </figure>
  );
}

/** Reads the other device's codes by the camera, says what they bring, and takes it over by one press. */
export function ReadCodes({
  isBusy,
  onTakeOver,
  onEnd,
}: {
  readonly isBusy: boolean;
  readonly onTakeOver: (handle: string) => void;
  readonly onEnd: () => void;
}) {
  const [brought, setBrought] = useState<NightBrought | null>(null);
  if (!brought) return <Camera onBrought={setBrought} onEnd={onEnd} />;
  const { handle, presses, fresh } = brought;
  return (
    <div role="status">
      <p className="text-lg">
        {fresh === 0
          ? `Read: ${counted(presses, "press", "presses")}, and all of it is here already.`
          : `Read: ${counted(presses, "press", "presses")} of the other device, with something not here yet.`}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        {fresh > 0 ? (
          <Button
            className={LIKELIEST}
            disabled={isBusy}
            onClick={() => {
              onTakeOver(handle);
              onEnd();
            }}
          >
            Take it over
          </Button>
        ) : null}
        <Button className={BIG} onClick={onEnd}>
          {fresh > 0 ? "Leave it" : "Good"}
        </Button>
      </div>
    </div>
  );
}

function Camera({
  onBrought,
  onEnd,
}: {
  readonly onBrought: (brought: NightBrought) => void;
  readonly onEnd: () => void;
}) {
  const desk = useDesk();
  const [read, setRead] = useState<CodesRead | null>(null);
  const [isBroken, setBroken] = useState(false);
  const gone = useRef<AbortController | null>(null);
  useEffect(() => {
    const controller = new AbortController();
    gone.current = controller;
    return () => controller.abort();
  }, []);
  const { video, fault } = useCamera(async (picture) => {
    const code = await desk.workers.codes.read(picture);
    if (code === null) return;
    const next = withCode(read, code);
    if (next === read || next === null) return;
    setRead(next);
    if (!gone.current) return;
    const found = await lookIntoCodes(desk, next, gone.current.signal);
    if (!found.ok) {
      setBroken(true);
      setRead(null); // from the start: they come round again
    } else if (found.value) onBrought(found.value);
  });
  return (
    <div>
      {fault ? (
        <Refusal>
          {fault === "refused"
            ? "The browser has no leave to use the camera: allow it in the address bar, or take the file."
            : "There is no camera here that a page can use: take the file."}
        </Refusal>
      ) : (
        <>
          {/* A picture of the other screen: there is nothing to hear. */}
          <video ref={video} muted playsInline className="bg-raised w-full max-w-[30rem]" aria-label="Camera" />
          <p role="status" className="mt-1 text-lg">
            {read ? `${read.parts.size} of ${counted(read.count, "code")} read` : "Looking for a code …"}
          </p>
        </>
      )}
      {isBroken ? <p className="text-rust">What was read did not add up: it is read once more.</p> : null}
      <Button className={`${BIG} mt-2`} onClick={onEnd}>
        Back
      </Button>
    </div>
  );
}
