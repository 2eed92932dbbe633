import { fixed, plain } from "~/components/numbers";
import { hiddenBelowDeg, type Landmark, type Skyline } from "~/core/sky";

/** One step of a target's way over the skyline. */
export interface WalkStep {
  readonly azimuthDeg: number;
  readonly altitudeDeg: number;
  readonly word: string;
  readonly isUsable: boolean;
}

const NAMES = ["N", "NE", "E", "SE", "S", "SW", "W", "NW"];
const TOP_DEG = 90;
const PLOT_PX = 150;

/** A place's silhouette from north through east and round, with a target's steps over it. `centreDeg` is the azimuth in the middle. */
export function SkylineDrawing({
  skyline,
  landmarks = [],
  minAltitudeDeg,
  steps = [],
  centreDeg = 180,
  widthPx = 720,
}: {
  readonly skyline: Skyline;
  readonly landmarks?: readonly Landmark[] | undefined;
  readonly minAltitudeDeg: number;
  readonly steps?: readonly WalkStep[];
  readonly centreDeg?: number;
  /** About as wide as the box it stands in, so that its words keep their size. */
  readonly widthPx?: number;
}) {
  const width = widthPx;
  const x = (az: number) => (((((az - centreDeg + 540) % 360) + 360) % 360) * width) / 360;
  const y = (alt: number) => PLOT_PX - (PLOT_PX * Math.min(alt, TOP_DEG)) / TOP_DEG;
  const outline = Array.from(
    { length: 721 },
    (_, i) =>
      `${plain((i * width) / 720, 1)},${plain(y(hiddenBelowDeg(skyline, landmarks, centreDeg - 180 + i / 2)), 1)}`,
  ).join(" ");
  return (
    <figure>
      <svg
        viewBox={`0 -14 ${width} 186`}
        className="w-full max-sm:[&_text]:text-[20px]"
        role="img"
        aria-label={`Skyline, highest ${fixed(Math.max(0, ...skyline.map((p) => p.altitudeDeg), ...landmarks.map((l) => l.altitudeDeg)))}°`}
      >
        <defs>
          <pattern id="skyline-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="1.4" height="6" fill="var(--hatch)" />
          </pattern>
        </defs>
        {[15, 30, 45, 60].map((alt) => (
          <g key={alt}>
            <line x1="0" x2={width} y1={y(alt)} y2={y(alt)} stroke="var(--rule)" strokeWidth="0.6" />
            <text x="3" y={y(alt) - 2} fontSize="12" fill="var(--faint)">
              {alt}°
            </text>
          </g>
        ))}
        <line
          x1="0"
          x2={width}
          y1={y(minAltitudeDeg)}
          y2={y(minAltitudeDeg)}
          stroke="var(--soft)"
          strokeDasharray="3 4"
        />
        <text x={width - 3} y={y(minAltitudeDeg) - 3} fontSize="12" textAnchor="end" fill="var(--soft)">
          lowest used, {minAltitudeDeg}°
        </text>
        <polygon
          points={`0,${PLOT_PX} ${outline} ${width},${PLOT_PX}`}
          fill="url(#skyline-hatch)"
          stroke="var(--soft)"
          strokeWidth="1"
        />
        {NAMES.map((name, i) => (
          <text
            key={name}
            x={Math.min(width - 8, Math.max(8, x(i * 45)))}
            y="166"
            fontSize="12"
            textAnchor="middle"
            fill="var(--faint)"
          >
            {name}
          </text>
        ))}
        {steps.map((s) => (
          <g key={s.word}>
            <circle
              cx={x(s.azimuthDeg)}
              cy={y(s.altitudeDeg)}
              r="3.2"
              fill={s.isUsable ? "var(--lamp)" : "none"}
              stroke={s.isUsable ? "var(--lamp)" : "var(--soft)"}
            />
            <text x={x(s.azimuthDeg)} y={y(s.altitudeDeg) - 6} fontSize="12" textAnchor="middle" fill="var(--ink)">
              {s.word}
            </text>
          </g>
        ))}
      </svg>
    </figure>
  );
}
