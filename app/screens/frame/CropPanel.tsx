import { useState } from "react";
import { Field, SelectField } from "~/components/ui/Field";
import { Button } from "~/components/ui/Button";
import { fixed, percent, trimmed } from "~/components/numbers";
import {
  largestCrop,
  pictureSize,
  skyToFrame,
  uncovered,
  type Crop,
  type MosaicLayout,
  type Optics,
  type Panel,
} from "~/core/framing";
import { parseNumber } from "~/core/notation";
import type { Equatorial } from "~/core/sky";

const SHAPES = ["free", "1:1", "5:4", "4:3", "3:2", "16:9"] as const;
type Shape = (typeof SHAPES)[number];
const ALMOST_NONE = 0.0005;

/** Width over height; null = free. */
function aspectOf(shape: Shape, isUpright: boolean): number | null {
  if (shape === "free") return null;
  const [a, b] = shape.split(":").map(Number) as [number, number];
  return isUpright ? b / a : a / b;
}

/** "4,144 × 2,822 px (11.7 MP), 137′ × 93′, 35.1 × 23.9 cm in print at 300 dpi". */
export function pictureWords(crop: Crop, optics: Optics): string {
  const { widthPx, heightPx, printWidthCm, printHeightCm } = pictureSize(crop, optics.pixelScaleArcsecPerPx);
  return `${fixed(widthPx)} × ${fixed(heightPx)} px (${fixed((widthPx * heightPx) / 1e6, 1)} MP), ${fixed(crop.widthArcmin, 1)}′ × ${fixed(crop.heightArcmin, 1)}′, ${fixed(printWidthCm, 1)} × ${fixed(printHeightCm, 1)} cm in print at 300 dpi`;
}

/** The picture that will be cut out of the panels: what it comes to, and how to cut it otherwise. */
export function CropPanel({
  crop,
  layout,
  panels,
  optics,
  target,
  onCrop,
}: {
  /** As chosen; undefined = the largest that has no gap. */
  readonly crop: Crop | undefined;
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  readonly optics: Optics;
  readonly target: { readonly name: string; readonly at: Equatorial<"icrs"> } | null;
  readonly onCrop: (crop: Crop | undefined) => void;
}) {
  const [shape, setShape] = useState<Shape>("free");
  const [isUpright, setUpright] = useState(false);
  const [isOpen, setOpen] = useState(false);
  const whole = largestCrop(panels, layout);
  const shown = crop ?? whole;
  if (!shown) return null;
  const gap = crop ? uncovered(crop, panels, layout) : 0;
  const aspect = aspectOf(shape, isUpright);
  const cut = (next: Shape, upright: boolean) => {
    setShape(next);
    setUpright(upright);
    const found = largestCrop(panels, layout, aspectOf(next, upright));
    onCrop(next === "free" || !found ? undefined : found);
  };
  const at = target ? skyToFrame(layout, target.at) : null;
  const change = (part: Partial<Crop>) => onCrop({ ...shown, ...part });
  const box = (label: string, value: number, min: number, take: (value: number) => void) => (
    <Size key={`${label} ${value.toFixed(2)}`} label={label} value={value} min={min} onTake={take} />
  );
  return (
    <section className="border-rule mt-4 border-t pt-3" aria-label="Picture that is cut out">
      <p>
        <span className="font-semibold">Picture</span>{" "}
        <span className="text-soft">
          {crop ? "as you cut it" : panels.length > 1 ? "the largest without gaps" : "the whole frame"}
        </span>
      </p>
      <p>{pictureWords(shown, optics)}</p>
      {gap > ALMOST_NONE ? (
        <p className="text-rust" role="status">
          {percent(gap)} of it is in no panel and would stay empty.
        </p>
      ) : null}
      <button
        type="button"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
        className="text-note text-soft min-h-6 underline underline-offset-4"
      >
        {isOpen ? "Close the crop" : "Crop it"}
      </button>
      {isOpen ? (
        <div className="mt-2 grid grid-cols-2 gap-3">
          <SelectField label="Shape" value={shape} onChange={(e) => cut(e.target.value as Shape, isUpright)}>
            {SHAPES.map((s) => (
              <option key={s} value={s}>
                {s === "free" ? "any" : s}
              </option>
            ))}
          </SelectField>
          <label className="flex items-end gap-2 pb-2">
            <input
              type="checkbox"
              checked={isUpright}
              disabled={shape === "free" || shape === "1:1"}
              onChange={(e) => cut(shape, e.target.checked)}
            />
            upright
          </label>
          {box("Picture width", shown.widthArcmin, 0.1, (widthArcmin) =>
            change({ widthArcmin, ...(aspect === null ? {} : { heightArcmin: widthArcmin / aspect }) }),
          )}
          {box("Picture height", shown.heightArcmin, 0.1, (heightArcmin) =>
            change({ heightArcmin, ...(aspect === null ? {} : { widthArcmin: heightArcmin * aspect }) }),
          )}
          {box("Right of the centre", shown.xArcmin, -3000, (xArcmin) => change({ xArcmin }))}
          {box("Above the centre", shown.yArcmin, -3000, (yArcmin) => change({ yArcmin }))}
          <div className="col-span-2 flex flex-wrap gap-2">
            {target && at ? <Button onClick={() => change(at)}>Centre on {target.name}</Button> : null}
            <Button disabled={!crop} onClick={() => cut("free", false)}>
              No crop
            </Button>
          </div>
        </div>
      ) : null}
    </section>
  );
}

/** A length in arcminutes that is taken when the box is left or Enter is pressed. */
function Size({
  label,
  value,
  min,
  onTake,
}: {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly onTake: (value: number) => void;
}) {
  const shown = trimmed(Math.round(value * 10) / 10);
  const [text, setText] = useState(shown);
  const [fault, setFault] = useState<string | undefined>();
  const take = () => {
    if (text === shown) return;
    const typed = parseNumber(text);
    if (typed === null || typed < min || typed > 3000) {
      setFault(typed === null ? `“${text.trim()}” is not a number.` : `From ${min} to 3000′.`);
      return;
    }
    setFault(undefined);
    onTake(typed);
  };
  return (
    <Field
      label={label}
      unit="′"
      value={text}
      fault={fault}
      onChange={(e) => setText(e.target.value)}
      onBlur={take}
      onKeyDown={(e) => e.key === "Enter" && take()}
    />
  );
}
