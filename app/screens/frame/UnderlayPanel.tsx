import { FilePick } from "~/components/forms/FilePick";
import { useState } from "react";
import { frameCorners, meshFromCorners, type CornerFault, type FourCorners, type MosaicLayout } from "~/core/framing";
import { formatDeclination, formatRightAscension, parsePosition } from "~/core/notation";
import type { Equatorial } from "~/core/sky";
import { positionFaultWords } from "~/components/words/fault-words";
import type { LaidPicture } from "~/drawing";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";
import { Refusal } from "~/components/ui/Panel";
import { openPicture, type OpenedPicture } from "./open-picture";

const CORNERS = ["Top left", "Top right", "Bottom right", "Bottom left"] as const;
const CORNER_FAULTS: Readonly<Record<CornerFault, string>> = {
  tooFar: "The corners lie more than 60° apart.",
  crossed: "The corners cross: go round the picture from top left to top right, bottom right, bottom left.",
  flat: "Three corners lie on one line.",
};
const NOT_TYPED = ["", "", "", ""];

const written = (p: Equatorial<"icrs">) => `${formatRightAscension(p.raDeg, 2)} ${formatDeclination(p.decDeg, 1)}`;

/** A picture of one's own under the chart: a solved FITS image, or a JPEG or PNG with its four corners. */
export function UnderlayPanel({
  underlay,
  layout,
  readFits,
  onUnderlay,
}: {
  readonly underlay: LaidPicture | null;
  readonly layout: MosaicLayout;
  /** Reads a FITS image, or says in words why not; null when the file is none. */
  readonly readFits: (
    file: File,
    signal: AbortSignal,
    onProgress: (share: number) => void,
  ) => Promise<LaidPicture | string | null>;
  readonly onUnderlay: (underlay: LaidPicture | null) => void;
}) {
  const [fault, setFault] = useState<string | null>(null);
  const [opened, setOpened] = useState<OpenedPicture | null>(null);
  const [typed, setTyped] = useState<readonly string[] | null>(null);
  const picture = opened ?? (underlay?.corners ? underlay : null);
  const texts = typed ?? (opened ? null : underlay?.corners) ?? NOT_TYPED;
  const open = async (file: File, signal: AbortSignal, onProgress: (share: number) => void) => {
    setFault(null);
    setOpened(null);
    setTyped(null);
    const fits = await readFits(file, signal, onProgress);
    if (typeof fits === "string") return `${file.name}: ${fits}`;
    if (fits) return onUnderlay(fits);
    const chosen = await openPicture(file);
    if (!chosen) return `${file.name}: neither a FITS image nor a picture the browser can read.`;
    setOpened(chosen);
    return undefined;
  };
  const reads = texts.map((t) => parsePosition(t));
  const place = () => {
    if (!picture || reads.some((r) => !r.ok)) return;
    const corners = reads.map((r) => ({
      frame: "icrs",
      ...(r.ok ? r.value : { raDeg: 0, decDeg: 0 }),
    })) as unknown as FourCorners;
    const mesh = meshFromCorners(corners);
    if (typeof mesh === "string") return setFault(CORNER_FAULTS[mesh]);
    setFault(null);
    const { image, widthPx, heightPx, file, name } = picture;
    onUnderlay({ image, widthPx, heightPx, file, name, mesh, corners: texts, opacity: underlay?.opacity ?? 0.8 });
    setOpened(null);
    setTyped(null);
  };
  const takeAway = () => {
    setOpened(null);
    setTyped(null);
    onUnderlay(null);
  };
  return (
    <>
      <FilePick
        label="Picture for under the chart"
        words="Choose a picture"
        busy={() => "Reading the picture …"}
        onFiles={([file], signal, onProgress) => open(file, signal, onProgress)}
      >
        <p className="text-soft">
          A solved FITS image lies down by itself; a JPEG or PNG wants the directions of its four corners. It is kept
          with this frame in this browser, small enough for the chart; exported files do without it.
        </p>
      </FilePick>
      {underlay ? (
        <Button className="mt-2" onClick={takeAway}>
          Take it away
        </Button>
      ) : null}
      {fault ? (
        <Refusal>
          <p>{fault}</p>
        </Refusal>
      ) : null}
      {underlay ? (
        <label className="text-note text-soft mt-3 block">
          {underlay.name || "Picture"}, strength
          <input
            type="range"
            min="0.1"
            max="1"
            step="0.05"
            className="w-full"
            value={underlay.opacity}
            onChange={(e) => onUnderlay({ ...underlay, opacity: e.target.valueAsNumber })}
          />
        </label>
      ) : null}
      {picture ? (
        <div className="mt-3 space-y-2">
          {opened ? <p className="text-note text-soft">Where does {opened.name} lie?</p> : null}
          {CORNERS.map((corner, i) => {
            const read = reads[i]!;
            const text = texts[i]!;
            return (
              <Field
                key={corner}
                label={corner}
                placeholder="20h50m33s +31°10′"
                value={text}
                fault={text.trim() === "" || read.ok ? undefined : positionFaultWords(read.error)}
                onChange={(e) => setTyped(texts.map((t, k) => (k === i ? e.target.value : t)))}
              />
            );
          })}
          <div className="flex flex-wrap gap-2">
            <Button
              onClick={() =>
                setTyped(frameCorners(layout, layout.planeWidthArcmin, layout.planeHeightArcmin).map(written))
              }
            >
              It fills one frame here
            </Button>
            <Button disabled={reads.some((r) => !r.ok)} onClick={place}>
              Lay it down
            </Button>
          </div>
        </div>
      ) : null}
    </>
  );
}
