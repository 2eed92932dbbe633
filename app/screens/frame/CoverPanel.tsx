import { fixed } from "~/components/numbers";
import { useState } from "react";
import type { Cover } from "~/core/framing";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";

/** Something that can be asked to be inside. */
export interface WantedOutline {
  readonly key: string;
  readonly name: string;
  readonly isDrawn: boolean;
  /** Ticked from the start. */
  readonly isWanted: boolean;
}

/** Outlines that must be inside, drawing new ones, and the smallest grids that hold those ticked. */
export function CoverPanel({
  outlines,
  isDrawing,
  corners,
  onDraw,
  onAdd,
  onRemove,
  onCover,
  onTake,
}: {
  readonly outlines: readonly WantedOutline[];
  readonly isDrawing: boolean;
  /** Corners put down so far. */
  readonly corners: number;
  readonly onDraw: (what: "begin" | "finish" | "drop") => void;
  /** Adds an object by its name; why it cannot, "" when it could. */
  readonly onAdd: (name: string) => Promise<string>;
  readonly onRemove: (key: string) => void;
  readonly onCover: (keys: readonly string[], isFixed: boolean) => Promise<readonly Cover[]>;
  readonly onTake: (cover: Cover, keys: readonly string[]) => void;
}) {
  const [ticks, setTicks] = useState<Readonly<Record<string, boolean>>>({});
  const isTicked = (o: WantedOutline) => ticks[o.key] ?? o.isWanted;
  const [isFixed, setFixed] = useState(false);
  const [name, setName] = useState("");
  const [fault, setFault] = useState("");
  const [covers, setCovers] = useState<readonly Cover[] | null>(null);
  const keys = outlines.filter(isTicked).map((o) => o.key);
  return (
    <>
      {outlines.length === 0 ? <p className="text-soft">Nothing with a known outline is near. Draw one.</p> : null}
      <ul>
        {outlines.map((o) => (
          <li key={o.key} className="flex items-center justify-between gap-2">
            <label className="flex min-h-8 items-center gap-2">
              <input
                type="checkbox"
                checked={isTicked(o)}
                onChange={(e) => {
                  setTicks({ ...ticks, [o.key]: e.target.checked });
                  setCovers(null);
                }}
              />
              {o.name}
            </label>
            {o.isDrawn ? (
              <button type="button" className="text-note text-soft min-h-6 underline" onClick={() => onRemove(o.key)}>
                Remove
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          onAdd(name).then(
            (why) => {
              setFault(why);
              if (why === "") setName("");
            },
            () => setFault("The catalogue could not be loaded. Try again."),
          );
        }}
      >
        <div className="min-w-0 flex-1">
          <Field
            label="Another object, by name"
            value={name}
            fault={fault === "" ? undefined : fault}
            onChange={(e) => {
              setName(e.target.value);
              setFault("");
            }}
          />
        </div>
        <Button type="submit" disabled={name.trim() === ""}>
          Add
        </Button>
      </form>
      <div className="mt-2 flex flex-wrap gap-2">
        {isDrawing ? (
          <>
            <Button disabled={corners < 3} onClick={() => onDraw("finish")}>
              Close the outline
            </Button>
            <Button onClick={() => onDraw("drop")}>Drop it</Button>
            <p className="text-note text-soft w-full" role="status">
              Press on the chart, corner after corner: {corners} so far, 3 at least. Dragging still moves the sky.
            </p>
          </>
        ) : (
          <Button onClick={() => onDraw("begin")}>Draw an outline</Button>
        )}
      </div>
      <label className="mt-3 flex min-h-8 items-center gap-2">
        <input
          type="checkbox"
          checked={isFixed}
          onChange={(e) => {
            setFixed(e.target.checked);
            setCovers(null);
          }}
        />
        keep the camera angle
      </label>
      <Button className="mt-1" disabled={keys.length === 0} onClick={() => void onCover(keys, isFixed).then(setCovers)}>
        Smallest mosaic that contains them
      </Button>
      {covers?.length === 0 ? (
        <p className="text-rust mt-2" role="status">
          More than 10 panels a side would be needed. Take a shorter focal length, or fewer outlines.
        </p>
      ) : null}
      {covers && covers.length > 0 ? (
        <ol className="mt-2" aria-label="Grids that hold the outlines">
          {covers.slice(0, 5).map((c) => (
            <li
              key={`${c.columns} ${c.rows}`}
              className="border-rule flex items-center justify-between gap-3 border-t py-1.5"
            >
              <span>
                <span className="font-semibold">
                  {c.columns} × {c.rows}
                </span>
                , {c.columns * c.rows === 1 ? "one panel" : `${c.columns * c.rows} panels`}
                <span className="text-note text-soft block">
                  {isFixed
                    ? `${fixed(c.slack * 100)} % of a side to spare`
                    : `turned ${fixed(c.fromDeg, 1)}° to ${fixed(c.toDeg, 1)}°, ${fixed(c.slack * 100)} % of a side to spare`}
                </span>
              </span>
              <Button className="whitespace-nowrap" onClick={() => onTake(c, keys)}>
                Take it
              </Button>
            </li>
          ))}
        </ol>
      ) : null}
      {covers && covers.length > 0 ? (
        <p className="text-note text-soft mt-1">
          The first is the smallest there is among full grids, at any angle. Panels that hold nothing are left out.
        </p>
      ) : null}
    </>
  );
}
