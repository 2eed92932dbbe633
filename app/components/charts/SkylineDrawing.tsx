import { skylineAltitudeDeg, type Skyline } from "~/core/sky";

/** One step of a target's way over the skyline. */
export interface WalkStep {
  readonly azimuthDeg: number;
  readonly altitudeDeg: number;
  readonly word: string;
  readonly isUsable: boolean;
}

const NAMES = ["N", "NE", "E", "SE", "S", "SW", "W", "NW"];
const TOP_DEG = 90;

/** A place's silhouette from north through east and round, with a target's steps over it. `centreDeg` is the azimuth in the middle. */
export function SkylineDrawing({
  skyline,
  minAltitudeDeg,
  steps = [],
  centreDeg = 180,
}: {
  readonly skyline: Skyline;
  readonly minAltitudeDeg: number;
  readonly steps?: readonly WalkStep[];
  readonly centreDeg?: number;
}) {
  const x = (az: number) => ((((az - centreDeg + 540) % 360) + 360) % 360) * 2;
  const y = (alt: number) => 150 - (150 * Math.min(alt, TOP_DEG)) / TOP_DEG;
  const outline = Array.from(
    { length: 361 },
    (_, i) => `${i * 2},${y(skylineAltitudeDeg(skyline, centreDeg - 180 + i)).toFixed(1)}`,
  ).join(" ");
  return (
    <figure>
      <svg
        viewBox="0 0 720 172"
        className="w-full"
        role="img"
        aria-label={`Skyline, highest ${Math.max(0, ...skyline.map((p) => p.altitudeDeg)).toFixed(0)}°`}
      >
        <defs>
          <pattern id="skyline-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="1.4" height="6" fill="var(--hatch)" />
          </pattern>
        </defs>
        {[15, 30, 45, 60].map((alt) => (
          <g key={alt}>
            <line x1="0" x2="720" y1={y(alt)} y2={y(alt)} stroke="var(--rule)" strokeWidth="0.6" />
            <text x="3" y={y(alt) - 2} fontSize="10" fill="var(--faint)">
              {alt}°
            </text>
          </g>
        ))}
        <line
          x1="0"
          x2="720"
          y1={y(minAltitudeDeg)}
          y2={y(minAltitudeDeg)}
          stroke="var(--soft)"
          strokeDasharray="3 4"
        />
        <text x="717" y={y(minAltitudeDeg) - 3} fontSize="10" textAnchor="end" fill="var(--soft)">
          lowest used, {minAltitudeDeg}°
        </text>
        <polygon points={`0,150 ${outline} 720,150`} fill="url(#skyline-hatch)" stroke="var(--soft)" strokeWidth="1" />
        {NAMES.map((name, i) => (
          <text
            key={name}
            x={Math.min(712, Math.max(8, x(i * 45)))}
            y="166"
            fontSize="11"
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
            <text x={x(s.azimuthDeg)} y={y(s.altitudeDeg) - 6} fontSize="10" textAnchor="middle" fill="var(--ink)">
              {s.word}
            </text>
          </g>
        ))}
      </svg>
    </figure>
  );
}
