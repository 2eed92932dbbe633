import { plain } from "~/components/numbers";
import { useId, useRef, type KeyboardEvent } from "react";
import { hiddenBelowDeg, skyTowardsMag } from "~/core/sky";
import { clamp, wrap360 } from "~/core/units";
import { whereIs, type Pick, type Surroundings } from "./edit";
import { Magnifier } from "./Magnifier";
import { ABOVE, BELOW, HEIGHT, TOP_DEG, toX as x, toY as y, WIDTH, type Direction } from "./reach";
import { usePanoramaPointers } from "./use-panorama-pointers";

const NAMES = ["N", "NE", "E", "SE", "S", "SW", "W", "NW", "N"];
const GLOW = { azimuthDeg: 6, altitudeDeg: 6 };
const EXTINCTION = 0.25; // usual at V near sea level; only the picture depends on it

const listWords: Readonly<Record<keyof Surroundings, string>> = {
  skyline: "Point",
  landmarks: "Landmark",
  domes: "Town glow",
  lamps: "Lamp",
};

/** What a handle says of itself to a screen reader. */
function handleWords(now: Surroundings, pick: Pick): string {
  const thing = now[pick.list][pick.index]!;
  const { azimuthDeg, altitudeDeg } = whereIs(now, pick);
  const name = "name" in thing ? `, ${thing.name}` : "";
  return `${listWords[pick.list]} ${pick.index + 1} of ${now[pick.list].length}${name}: azimuth ${azimuthDeg}°, altitude ${altitudeDeg}°`;
}

/** Glow by direction: the brighter than the zenith, the denser. */
function Glow({ now, zenithSkyMag }: { readonly now: Surroundings; readonly zenithSkyMag: number }) {
  const cells: { az: number; alt: number; share: number }[] = [];
  for (let az = 0; az < 360; az += GLOW.azimuthDeg)
    for (let alt = 0; alt < 60; alt += GLOW.altitudeDeg) {
      const at = { azimuthDeg: az + GLOW.azimuthDeg / 2, altitudeDeg: alt + GLOW.altitudeDeg / 2 };
      const mag = skyTowardsMag({ zenithSkyMag, extinctionMag: EXTINCTION, domes: now.domes }, at);
      const even = skyTowardsMag({ zenithSkyMag, extinctionMag: EXTINCTION, domes: [] }, at);
      const share = clamp((even - mag) / 3, 0, 0.7);
      if (share > 0.02) cells.push({ az, alt, share });
    }
  return (
    <g aria-hidden="true">
      {cells.map((c) => (
        <rect
          key={`${c.az} ${c.alt}`}
          x={x(c.az)}
          y={y(c.alt + GLOW.altitudeDeg)}
          width={x(GLOW.azimuthDeg) + 0.4}
          height={(HEIGHT * GLOW.altitudeDeg) / TOP_DEG + 0.4}
          fill="var(--lamp)"
          fillOpacity={c.share}
        />
      ))}
    </g>
  );
}

/** The sign of a thing, lit where it is picked. */
function Sign({ list, isPicked }: { readonly list: keyof Surroundings; readonly isPicked: boolean }) {
  const lit = (otherwise: string) => (isPicked ? "var(--lamp)" : otherwise);
  switch (list) {
    case "skyline":
      return <circle r="4" fill={lit("var(--ink)")} />;
    case "landmarks":
      return <rect x="-4.5" y="-4.5" width="9" height="9" fill={lit("var(--soft)")} stroke="var(--ground)" />;
    case "domes":
      return <path d="M-7 4 A7 7 0 0 1 7 4 Z" fill={lit("none")} stroke="var(--ink)" />;
    case "lamps":
      return <path d="M0 -6 L5 5 H-5 Z" fill={lit("none")} stroke="var(--rust)" strokeWidth="1.5" />;
  }
}

/** The panorama from north through east and round: press to put down, drag or arrow keys to move; a finger moves finely under a magnifier. */
export function Panorama({
  now,
  pick,
  minAltitudeDeg,
  zenithSkyMag,
  onPress,
  onPick,
  onMove,
  onRemove,
}: {
  readonly now: Surroundings;
  readonly pick: Pick | null;
  readonly minAltitudeDeg: number;
  readonly zenithSkyMag: number;
  readonly onPress: (at: Direction) => void;
  readonly onPick: (pick: Pick) => void;
  /** `isDone` when the move ends, so that one drag is one step to undo. */
  readonly onMove: (pick: Pick, to: Direction, isDone: boolean) => void;
  readonly onRemove: (pick: Pick) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const hatch = useId();
  const scenery = useId();
  const onKey = (event: KeyboardEvent, at: Pick) => {
    const step = event.shiftKey ? 0.1 : 1;
    const { azimuthDeg, altitudeDeg } = whereIs(now, at);
    const by = (az: number, alt: number) =>
      onMove(at, { azimuthDeg: azimuthDeg + az * step, altitudeDeg: altitudeDeg + alt * step }, true);
    const acts: Readonly<Record<string, () => void>> = {
      ArrowLeft: () => by(-1, 0),
      ArrowRight: () => by(1, 0),
      ArrowUp: () => by(0, 1),
      ArrowDown: () => by(0, -1),
      Delete: () => onRemove(at),
      Backspace: () => onRemove(at),
      Enter: () => onPress({ azimuthDeg: wrap360(azimuthDeg + 5), altitudeDeg }),
    };
    const act = acts[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };
  const outline = Array.from(
    { length: 721 },
    (_, i) => `${plain(x(i / 2), 1)},${plain(y(hiddenBelowDeg(now.skyline, now.landmarks, i / 2)), 1)}`,
  ).join(" ");
  const picks: Pick[] = (["skyline", "landmarks", "domes", "lamps"] as const).flatMap((list) =>
    now[list].map((_, index) => ({ list, index })),
  );
  const pointers = usePanoramaPointers({ svg, now, picks, onPress, onPick, onMove });
  return (
    <div className="relative">
      {pointers.fingered ? (
        <Magnifier
          at={whereIs(now, pointers.fingered.pick)}
          words={listWords[pointers.fingered.pick.list]}
          sceneryId={scenery}
          isBelow={pointers.fingered.isHigh}
        />
      ) : null}
      <svg
        ref={svg}
        viewBox={`0 ${-ABOVE} ${WIDTH} ${HEIGHT + ABOVE + BELOW}`}
        className="w-full touch-pan-y select-none max-sm:[&_text]:text-[22px]"
        role="group"
        aria-label="Panorama: press to put down, drag or use the arrow keys to move, Enter adds beside, Delete removes"
        onPointerDown={pointers.onPointerDown}
        onPointerMove={pointers.onPointerMove}
        onPointerUp={pointers.onPointerUp}
        onPointerCancel={pointers.onPointerCancel}
      >
        <defs>
          <pattern id={hatch} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="1.4" height="6" fill="var(--hatch)" />
          </pattern>
        </defs>
        <g id={scenery}>
          <rect x="0" y={-ABOVE} width={WIDTH} height={HEIGHT + ABOVE} fill="var(--night)" />
          <Glow now={now} zenithSkyMag={zenithSkyMag} />
          {[15, 30, 45, 60].map((alt) => (
            <line key={alt} x1="0" x2={WIDTH} y1={y(alt)} y2={y(alt)} stroke="var(--rule)" strokeWidth="0.6" />
          ))}
          <line
            x1="0"
            x2={WIDTH}
            y1={y(minAltitudeDeg)}
            y2={y(minAltitudeDeg)}
            stroke="var(--soft)"
            strokeDasharray="3 4"
          />
          <polygon points={`0,${HEIGHT} ${outline} ${WIDTH},${HEIGHT}`} fill="var(--ground)" />
          <polygon points={`0,${HEIGHT} ${outline} ${WIDTH},${HEIGHT}`} fill={`url(#${hatch})`} stroke="var(--soft)" />
        </g>
        {[15, 30, 45, 60].map((alt) => (
          <text key={alt} x="4" y={y(alt) - 3} fontSize="12" fill="var(--faint)">
            {alt}°
          </text>
        ))}
        {NAMES.map((name, i) => (
          <text
            key={`${name}${i}`}
            x={clamp(x(i * 45), 8, WIDTH - 8)}
            y={HEIGHT + 16}
            fontSize="12"
            textAnchor="middle"
            fill="var(--soft)"
          >
            {name}
          </text>
        ))}
        {picks.map((p) => {
          const { azimuthDeg, altitudeDeg } = whereIs(now, p);
          const isPicked = pick?.list === p.list && pick.index === p.index;
          const thing = now[p.list][p.index]!;
          return (
            <g
              key={`${p.list} ${p.index}`}
              role="button"
              tabIndex={0}
              aria-label={handleWords(now, p)}
              aria-pressed={isPicked}
              transform={`translate(${x(azimuthDeg)} ${y(altitudeDeg)})`}
              className="cursor-grab outline-none [&:focus-visible>circle:first-child]:stroke-2"
              onFocus={() => onPick(p)}
              onKeyDown={(e) => onKey(e, p)}
              onPointerDown={(e) => pointers.onThing(e, p)}
            >
              <circle r="11" fill="transparent" stroke={isPicked ? "var(--lamp)" : "transparent"} />
              {/* What a finger reaches; nothing scrolls under it. */}
              <circle
                r="11"
                fill="transparent"
                className="touch-none pointer-coarse:[r:28px] max-sm:pointer-coarse:[r:56px]"
              />
              <Sign list={p.list} isPicked={isPicked} />
              {"name" in thing ? (
                <text
                  y="-13"
                  fontSize="12"
                  textAnchor="middle"
                  fill="var(--ink)"
                  stroke="var(--ground)"
                  strokeWidth="3"
                  paintOrder="stroke"
                >
                  {thing.name}
                </text>
              ) : null}
            </g>
          );
        })}
      </svg>
    </div>
  );
}
