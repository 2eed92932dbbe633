import { fixed } from "~/components/numbers";
import { Link } from "react-router";
import { Button } from "~/components/ui/Button";
import type { Gaze } from "~/components/sky-chart/SkyChart";
import type { ChartThing } from "./chart-facts";

/** Which way up a chart is shown. */
export interface ChartLook {
  readonly up: "north" | "frame";
  readonly isMirrored: boolean;
}

/** What stands under a chart: what the pointer is on, the ways to look, and facts about what was pressed. */
export function ChartTools({
  under,
  gaze,
  onGaze,
  onWhole,
  look,
  onLook,
  onUndo,
  onRedo,
  status,
  isPicture,
  pressed,
  search,
}: {
  readonly under: string;
  readonly gaze: Gaze;
  readonly onGaze: (gaze: Gaze) => void;
  readonly onWhole: () => void;
  readonly look: ChartLook;
  readonly onLook: (look: ChartLook) => void;
  /** Undefined when there is nothing to undo. */
  readonly onUndo: (() => void) | undefined;
  readonly onRedo: (() => void) | undefined;
  readonly status: string;
  /** A picture of the sky lies behind the chart in place of what is drawn of it. */
  readonly isPicture: boolean;
  readonly pressed: ChartThing | null;
  readonly search: string;
}) {
  const height = gaze.heightDeg >= 1 ? `${fixed(gaze.heightDeg, 1)}°` : `${fixed(gaze.heightDeg * 60)}′`;
  return (
    <>
      <p className="text-note text-soft mt-1 h-5 truncate">{under}</p>
      <div className="no-print mt-1 flex flex-wrap items-center gap-2">
        <Button onClick={onWhole}>Whole frame</Button>
        <Button
          onClick={() => onGaze({ ...gaze, heightDeg: Math.max(1 / 12, gaze.heightDeg * 0.7) })}
          aria-label="Closer"
        >
          +
        </Button>
        <Button onClick={() => onGaze({ ...gaze, heightDeg: Math.min(60, gaze.heightDeg / 0.7) })} aria-label="Wider">
          −
        </Button>
        <Button onClick={onUndo} disabled={!onUndo}>
          Undo
        </Button>
        <Button onClick={onRedo} disabled={!onRedo}>
          Redo
        </Button>
        <Button
          aria-pressed={look.up === "frame"}
          onClick={() => onLook({ ...look, up: look.up === "frame" ? "north" : "frame" })}
        >
          {look.up === "frame" ? "North up" : "Frame up"}
        </Button>
        <Button aria-pressed={look.isMirrored} onClick={() => onLook({ ...look, isMirrored: !look.isMirrored })}>
          {look.isMirrored ? "As on the sky" : "Mirrored"}
        </Button>
        <p className="text-note text-faint" aria-live="polite">
          {status}{" "}
          {isPicture
            ? ""
            : "Patches and outlines are drawn from catalogue size, angle and brightness: a model, not what a long exposure shows. "}
          Chart {height} high.
        </p>
      </div>
      {pressed ? (
        <p className="mt-2" role="status">
          {pressed.entry ? (
            <Link
              to={`/targets/${encodeURIComponent(pressed.entry.id)}${search}`}
              className="underline underline-offset-4"
            >
              {pressed.words}
            </Link>
          ) : (
            <span className="font-semibold">{pressed.words}</span>
          )}
          <span className="text-soft"> · {pressed.facts}</span>
        </p>
      ) : null}
    </>
  );
}
