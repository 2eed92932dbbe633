import type { FrameSketch as Sketch, SketchPoint } from "~/core/framing";

/** The least that a star is drawn with, and by how much a magnitude more makes it smaller, of the drawing's half. */
const STAR = { brightest: 0.045, aMagnitude: 0.0038 };

/** A frame on its piece of sky, small: north up, east left; panels with their outlines, stars by their brightness. */
export function FrameSketch({
  frame,
  halfArcmin,
  stars,
  target,
  label,
}: {
  readonly frame: Sketch;
  /** Half the side of the piece of sky that is shown. */
  readonly halfArcmin: number;
  readonly stars: readonly { readonly at: SketchPoint; readonly magnitude: number }[];
  readonly target: {
    readonly at: SketchPoint;
    readonly semiMajorArcmin: number;
    readonly semiMinorArcmin: number;
    readonly positionAngleDeg: number;
  } | null;
  readonly label: string;
}) {
  const r = (magnitude: number) => halfArcmin * Math.max(0.008, STAR.brightest - STAR.aMagnitude * magnitude);
  return (
    <svg
      viewBox={`${-halfArcmin} ${-halfArcmin} ${2 * halfArcmin} ${2 * halfArcmin}`}
      className="block aspect-square w-full rounded-[6px]"
      style={{ background: "var(--night)" }}
      role="img"
      aria-label={label}
    >
      {target ? (
        <ellipse
          cx={target.at[0]}
          cy={target.at[1]}
          rx={target.semiMinorArcmin}
          ry={target.semiMajorArcmin}
          transform={`rotate(${-target.positionAngleDeg} ${target.at[0]} ${target.at[1]})`}
          fill="var(--moonlit)"
          fillOpacity={0.7}
        />
      ) : null}
      {stars.map((s) => (
        <circle key={s.at.join()} cx={s.at[0]} cy={s.at[1]} r={r(s.magnitude)} fill="var(--ink)" />
      ))}
      {frame.panels.map((p) => (
        <polygon
          key={p.number}
          points={p.corners.map((c) => c.join()).join(" ")}
          fill="none"
          stroke="var(--lamp)"
          strokeWidth={1.2}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}
