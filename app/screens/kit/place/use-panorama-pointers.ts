import { useRef, useState, type PointerEvent, type RefObject } from "react";
import { whereIs, type Pick, type Surroundings } from "./edit";
import { directionAt, drawnBy, nearest, spotOf, TAP_PX, type Direction, type Spot } from "./reach";

const MAGNIFIER_PX = 200; // with its words, on a phone

/** What a pointer holds, and how it came to hold it. */
interface Hold {
  readonly pick: Pick;
  /** A finger moves it finely, from where it was; a mouse puts it under itself. */
  readonly finger: { readonly from: Spot; readonly was: Direction } | null;
  /** Where it was moved to last; null while it has not moved. */
  readonly last: Direction | null;
}

/** Mouse and fingers on the panorama: a mouse presses and drags; a finger taps, holds the nearest thing and moves it finely. */
export function usePanoramaPointers({
  svg,
  now,
  picks,
  onPress,
  onPick,
  onMove,
}: {
  readonly svg: RefObject<SVGSVGElement | null>;
  readonly now: Surroundings;
  readonly picks: readonly Pick[];
  readonly onPress: (at: Direction) => void;
  readonly onPick: (pick: Pick) => void;
  readonly onMove: (pick: Pick, to: Direction, isDone: boolean) => void;
}) {
  const hold = useRef<Hold | null>(null);
  const tap = useRef<Spot | null>(null);
  /** What a finger holds at the moment: the magnifier shows it, below where there is no room above. */
  const [fingered, setFingered] = useState<{ readonly pick: Pick; readonly isHigh: boolean } | null>(null);

  const seen = (e: PointerEvent): { spot: Spot; widthPx: number } => {
    const box = svg.current!.getBoundingClientRect();
    return { spot: { x: e.clientX - box.left, y: e.clientY - box.top }, widthPx: box.width };
  };
  const take = (pick: Pick, finger: Hold["finger"], e: PointerEvent) => {
    hold.current = { pick, finger, last: null };
    svg.current?.setPointerCapture(e.pointerId);
    if (finger) setFingered({ pick, isHigh: (svg.current?.getBoundingClientRect().top ?? 0) < MAGNIFIER_PX });
    onPick(pick);
  };
  /** What was moved stays where it was last, one step to undo. */
  const letGo = () => {
    const held = hold.current;
    if (held?.last) onMove(held.pick, held.last, true);
    hold.current = null;
    tap.current = null;
    setFingered(null);
  };

  return {
    fingered,
    /** On a thing itself: a mouse takes it. */
    onThing: (e: PointerEvent, pick: Pick) => {
      if (e.pointerType !== "mouse" || e.button !== 0) return;
      e.stopPropagation();
      take(pick, null, e);
    },
    onPointerDown: (e: PointerEvent) => {
      if (hold.current !== null || e.button !== 0) return;
      const { spot, widthPx } = seen(e);
      if (e.pointerType === "mouse") return onPress(directionAt(spot, widthPx));
      const spots = picks.map((p) => spotOf(whereIs(now, p), widthPx));
      const meant = picks[nearest(spots, spot)];
      if (meant) take(meant, { from: spot, was: whereIs(now, meant) }, e);
      else tap.current = spot;
    },
    onPointerMove: (e: PointerEvent) => {
      const held = hold.current;
      if (!held) return;
      const { spot, widthPx } = seen(e);
      const { finger } = held;
      const last = finger ? drawnBy(finger.was, finger.from, spot, widthPx) : directionAt(spot, widthPx);
      hold.current = { ...held, last };
      onMove(held.pick, last, false);
    },
    onPointerUp: (e: PointerEvent) => {
      const tapped = tap.current;
      letGo();
      if (!tapped) return;
      const { spot, widthPx } = seen(e);
      if (Math.hypot(spot.x - tapped.x, spot.y - tapped.y) <= TAP_PX) onPress(directionAt(spot, widthPx));
    },
    onPointerCancel: letGo,
  };
}
