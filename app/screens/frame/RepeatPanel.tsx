import { fixed, plain } from "~/components/numbers";
import { FilePick } from "~/components/forms/FilePick";
import { useState } from "react";
import { deviationsOf, readWcs, type FitsHeader, type FitsWcs, type RigDeviation } from "~/core/formats";
import type { Rig } from "~/core/exposure";
import { rotationAdvice } from "~/core/framing";
import { parseNumber } from "~/core/notation";
import { Declination, RightAscension } from "~/components/Position";
import type { Result } from "~/core/result";
import { wrap360 } from "~/core/units";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";
import { Why } from "~/components/ui/Why";
import { frameFaultWords } from "./fault-words";

function deviationWords(d: RigDeviation): string {
  switch (d.code) {
    case "focalLength":
      return `The solution says ${d.found} mm, your rig says ${d.wanted} mm.`;
    case "headerFocalLength":
      return `Header says ${d.found} mm, your rig says ${d.wanted} mm.`;
    case "pixels":
      return `The picture has ${d.found} pixels, your rig ${d.wanted}: cropped, binned, or another camera.`;
    case "scales":
      return `Its pixels are not square on the sky (${d.found} ″).`;
    case "camera":
      return `Camera “${d.found}”, your rig’s files say “${d.wanted}”.`;
  }
}

/** Which way to turn, in one sentence. */
function turnWords(advice: ReturnType<typeof rotationAdvice>, isMotor: boolean): string {
  if (advice.turn === "none") return "The camera angle is correct.";
  const by = fixed(Math.abs(advice.changeDeg), 1);
  if (isMotor) return `Rotate by ${advice.changeDeg > 0 ? "+" : "−"}${by}° of position angle.`;
  return `Turn the camera ${advice.turn === "clockwise" ? "clockwise" : "counter-clockwise"} by ${by}°, seen from behind.`;
}

/** An exposure dropped: what it is, how it differs from the rig, taking its frame; and how to turn the camera. */
export function RepeatPanel({
  rig,
  wantedDeg,
  readHeader,
  onSeen,
  onAdopt,
}: {
  readonly rig: Rig;
  readonly wantedDeg: number;
  /** Reads the header of a file, or says in words why not. */
  readonly readHeader: (file: File, signal: AbortSignal) => Promise<Result<FitsHeader, string>>;
  /** The solution to show on the chart; null takes it away. */
  readonly onSeen: (wcs: FitsWcs | null) => void;
  readonly onAdopt: (wcs: FitsWcs) => void;
}) {
  const [seen, setSeen] = useState<{
    readonly name: string;
    readonly header: FitsHeader;
    readonly wcs: FitsWcs;
  } | null>(null);
  const [present, setPresent] = useState("");
  const [tolerance, setTolerance] = useState("1");
  const open = async (file: File, signal: AbortSignal) => {
    setSeen(null);
    onSeen(null);
    const header = await readHeader(file, signal);
    if (!header.ok) return `${file.name}: ${header.error}`;
    const wcs = readWcs(header.value);
    if (!wcs.ok) return `${file.name}: ${frameFaultWords(wcs.error)}`;
    setSeen({ name: file.name, header: header.value, wcs: wcs.value });
    setPresent(plain(wcs.value.shown.positionAngleDeg, 2));
    onSeen(wcs.value);
    return undefined;
  };
  const presentDeg = parseNumber(present);
  const toleranceDeg = parseNumber(tolerance);
  const isTolerance = toleranceDeg !== null && toleranceDeg > 0 && toleranceDeg <= 10;
  const isAngle = presentDeg !== null && Math.abs(presentDeg) <= 360;
  const advice =
    isAngle && isTolerance
      ? rotationAdvice({ wantedDeg, presentDeg: wrap360(presentDeg), reflections: rig.reflections, toleranceDeg })
      : null;
  const deviations = seen ? deviationsOf(seen.header, seen.wcs, rig) : [];
  return (
    <div>
      <FilePick
        label="Solved exposure or its header as text"
        words="Choose an exposure"
        onFiles={([file], signal) => open(file, signal)}
      >
        <p className="text-soft">
          Drop a solved FITS file here, or its header as text: the frame of last year, or the first exposure of tonight.
        </p>
      </FilePick>
      {seen ? (
        <div className="mt-3">
          <p className="font-semibold break-all">{seen.name}</p>
          <p>
            <RightAscension deg={seen.wcs.centre.raDeg} />, <Declination deg={seen.wcs.centre.decDeg} />; PA{" "}
            {fixed(seen.wcs.shown.positionAngleDeg, 2)}°, {fixed(seen.wcs.scaleYArcsec, 3)} ″/px
          </p>
          <p className={seen.wcs.shown.isMirrored ? "text-rust" : "text-soft"}>
            {seen.wcs.shown.isMirrored
              ? "Mirrored: an odd number of mirrors, or rows written from the top. The angle holds for rising rows."
              : "Not mirrored."}
          </p>
          {deviations.map((d) => (
            <p key={d.code} className="text-rust">
              {deviationWords(d)}
            </p>
          ))}
          <Button className="mt-2" onClick={() => onAdopt(seen.wcs)}>
            Take its centre and angle
          </Button>
        </div>
      ) : null}
      <h3 className="text-section text-soft mt-4 font-serif">Turn the camera</h3>
      <div className="mt-1 grid grid-cols-2 gap-3">
        <Field
          label="Camera PA now"
          unit="°"
          inputMode="decimal"
          value={present}
          fault={present === "" || isAngle ? undefined : "A number from 0 to 360."}
          onChange={(e) => setPresent(e.target.value)}
        />
        <Field
          label="Good enough within"
          unit="°"
          inputMode="decimal"
          value={tolerance}
          fault={isTolerance ? undefined : "More than 0, up to 10°."}
          onChange={(e) => setTolerance(e.target.value)}
        />
      </div>
      <p className="text-soft mt-2">
        Wanted: {fixed(wantedDeg % 180, 1)}° or {fixed((wantedDeg % 180) + 180, 1)}°.
      </p>
      {advice ? (
        <>
          <p className="text-figure" role="status">
            {turnWords(advice, rig.rotator === "motor")}
          </p>
          {advice.turn === "none" ? null : (
            <p className="text-rust">Flats taken before the turn no longer fit: take new ones after it.</p>
          )}
          {rig.rotator === "none" ? (
            <p className="text-rust">
              This rig has no rotator: loosen the camera, and check focus and tilt afterwards.
            </p>
          ) : null}
          <p className="text-note text-soft mt-1">
            <Why title="Which sense that is">
              <p>
                Position angle of the picture’s up side (rising rows), north through east. With {rig.reflections} mirror
                {rig.reflections === 1 ? "" : "s"} in the path, turning counter-clockwise as seen from behind the
                camera, looking into the optics, {rig.reflections % 2 === 0 ? "raises" : "lowers"} it. A rectangle is
                the same at PA + 180°: after a meridian flip the angle reads 180° more, do not turn the camera then.
                Verify the sense once with two solved exposures.
              </p>
            </Why>
          </p>
        </>
      ) : null}
    </div>
  );
}
