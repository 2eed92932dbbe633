import { plain } from "~/components/numbers";
import type { FrameData } from "~/core/plan";
import { MOST_EXTRA_PANELS } from "~/core/records";
import { Button } from "~/components/ui/Button";

/** Panels put down by hand beside the grid: moved by number. */
export function ExtraPanels({
  frame,
  firstNumber,
  onChange,
  onAdd,
}: {
  readonly frame: FrameData;
  readonly firstNumber: number;
  readonly onChange: (change: Partial<FrameData>) => void;
  readonly onAdd: () => void;
}) {
  const extra = frame.extra ?? [];
  const set = (i: number, part: Partial<(typeof extra)[number]>) =>
    onChange({ extra: extra.map((e, k) => (k === i ? { ...e, ...part } : e)) });
  return (
    <div className="mt-4">
      {extra.map((e, i) => (
        <div key={i} className="border-rule flex items-center gap-2 border-t py-1">
          <span className="w-10 font-semibold">P{firstNumber + i}</span>
          {(["xArcmin", "yArcmin"] as const).map((axis) => (
            <label key={axis} className="text-note text-soft flex items-center gap-1">
              {axis === "xArcmin" ? "right" : "up"}
              <input
                type="number"
                step="1"
                className="field-box w-20 px-1 py-0"
                value={Number(plain(e[axis], 1))}
                onChange={(event) =>
                  Number.isFinite(event.target.valueAsNumber) && set(i, { [axis]: event.target.valueAsNumber })
                }
              />
              ′
            </label>
          ))}
          <button
            type="button"
            className="text-note text-soft min-h-6 underline"
            aria-label={`Remove P${firstNumber + i}`}
            onClick={() => onChange({ extra: extra.filter((_, k) => k !== i) })}
          >
            Remove
          </button>
        </div>
      ))}
      <Button className="mt-2" onClick={onAdd} disabled={extra.length >= MOST_EXTRA_PANELS}>
        Add a panel by hand
      </Button>
      {extra.length >= MOST_EXTRA_PANELS ? (
        <p className="text-note text-soft mt-1">{MOST_EXTRA_PANELS} panels by hand are the most a frame takes.</p>
      ) : null}
      {extra.length > 0 ? (
        <p className="text-note text-soft mt-1">Drag it on the chart, or move it by number.</p>
      ) : null}
    </div>
  );
}
