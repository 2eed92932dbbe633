import { useState } from "react";
import { angleAlong, type MosaicLayout } from "~/core/framing";
import { separationDeg, type Equatorial } from "~/core/sky";

type Corner = readonly [raDeg: number, decDeg: number];

const TENTH = 10;
/** A line shorter than this share of the frame's short side says nothing of a direction. */
const LEAST_SHARE = 0.03;

/** Turning a frame by a line drawn on its chart along what one sees there. */
export function useLineTurn(layout: MosaicLayout, onTurn: (positionAngleDeg: number) => void) {
  const [isOn, setOn] = useState(false);
  const [drawn, setDrawn] = useState<readonly Corner[] | null>(null);
  const onLine = (from: Equatorial<"icrs">, to: Equatorial<"icrs">, isDone: boolean) => {
    if (!isDone) return setDrawn([from, to].map((p) => [p.raDeg, p.decDeg] as const));
    setDrawn(null);
    const leastDeg = (LEAST_SHARE * Math.min(layout.planeWidthArcmin, layout.planeHeightArcmin)) / 60;
    const angle = separationDeg(from, to) < leastDeg ? null : angleAlong(layout, from, to);
    if (angle === null) return;
    onTurn((Math.round(angle * TENTH) / TENTH) % 360);
    setOn(false);
  };
  return {
    isOn,
    toggle: () => {
      setDrawn(null);
      setOn(!isOn);
    },
    /** The line as it is drawn; null where none is. */
    drawn,
    /** What the chart tells of it; undefined = it draws none. */
    onLine: isOn ? onLine : undefined,
  };
}
