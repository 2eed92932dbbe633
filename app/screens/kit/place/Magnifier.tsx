import { fixed } from "~/components/numbers";
import { HEIGHT, MAGNIFIED, toX, toY, WIDTH, type Direction } from "./reach";

const HIGH = 90;
const WIDE = WIDTH / MAGNIFIED;

/** What lies under a finger, larger, beside the panorama: the thing that it holds stands in the middle. */
export function Magnifier({
  at,
  words,
  sceneryId,
  isBelow,
}: {
  readonly at: Direction;
  /** What is held. */
  readonly words: string;
  /** The drawing that is shown larger. */
  readonly sceneryId: string;
  /** Whether there is no room above. */
  readonly isBelow: boolean;
}) {
  const [x, y] = [toX(at.azimuthDeg), Math.min(toY(at.altitudeDeg), HEIGHT - HIGH / 3)];
  return (
    <figure
      aria-hidden="true"
      className={`border-lamp bg-night pointer-events-none absolute inset-x-0 z-20 overflow-hidden rounded-[10px] border ${isBelow ? "top-full mt-2" : "bottom-full mb-2"}`}
    >
      <svg viewBox={`${x - WIDE / 2} ${y - HIGH / 2} ${WIDE} ${HIGH}`} className="block w-full">
        {/* North is passed through: the same drawing once more on either side. */}
        {[-WIDTH, 0, WIDTH].map((shift) => (
          <use key={shift} href={`#${sceneryId}`} x={shift} />
        ))}
        <circle cx={x} cy={toY(at.altitudeDeg)} r="3" fill="none" stroke="var(--lamp)" />
        <path
          d={`M${x} ${toY(at.altitudeDeg)} m-9 0 h5 m8 0 h5 m-9 -9 v5 m0 8 v5`}
          stroke="var(--lamp)"
          strokeWidth="0.7"
        />
      </svg>
      <figcaption className="bg-sheet text-ink px-3 py-1.5 text-center text-lg font-semibold tabular-nums">
        {words} · {fixed(at.azimuthDeg, 1)}°, {fixed(at.altitudeDeg, 1)}° up
      </figcaption>
    </figure>
  );
}
