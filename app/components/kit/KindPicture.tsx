import { useId } from "react";
import type { TypicalCamera, TypicalOptics } from "~/core/exposure";

const LINE = { fill: "none", stroke: "currentColor", strokeWidth: 1.4 } as const;

/** Optics from the side, light from the left: length by the focal length, height by the aperture, all to one scale of a class. */
export function OpticsPicture({ kind, focalMm, apertureMm }: TypicalOptics) {
  const h = 8 + Math.sqrt(apertureMm / 254) * 22;
  const isFolded = kind === "catadioptric";
  const w = Math.min(62, isFolded ? h * 1.5 : 16 + Math.sqrt(focalMm / 1625) * 46);
  const [x0, y] = [70 - w, 20];
  const top = y - h / 2;
  return (
    <svg viewBox="0 0 84 40" className="h-10 w-21 shrink-0" aria-hidden="true">
      {kind === "lens" ? (
        <>
          <path d={`M${x0} ${top}h${w * 0.55}v3h${w * 0.45}v${h - 6}h${-w * 0.45}v3h${-w * 0.55}z`} {...LINE} />
          <path d={`M${x0 + w * 0.2} ${top}v${h}M${x0 + w * 0.38} ${top}v${h}`} {...LINE} strokeWidth={0.8} />
        </>
      ) : (
        <rect x={x0} y={top} width={w} height={h} {...LINE} />
      )}
      {kind === "refractor" ? (
        <>
          <rect x={x0 - 5} y={top - 2} width={14} height={h + 4} {...LINE} />
          <path d={`M${x0 + 5} ${top}q4 ${h / 2} 0 ${h}`} {...LINE} strokeWidth={0.9} />
        </>
      ) : null}
      {kind === "reflector" ? (
        <path d={`M${70} ${top}q-4 ${h / 2} 0 ${h}M${x0 + 9} ${y - 3}l5 6`} {...LINE} strokeWidth={1.1} />
      ) : null}
      {kind === "catadioptric" ? (
        <path
          d={`M${x0} ${top}q3 ${h / 2} 0 ${h}M70 ${top}q-4 ${h / 2} 0 ${h}M${x0 + 1} ${y - 4}v8`}
          {...LINE}
          strokeWidth={1.1}
        />
      ) : null}
      {kind === "prime focus" ? <path d={`M70 ${top}q-5 ${h / 2} 0 ${h}`} {...LINE} strokeWidth={1.1} /> : null}
      {kind === "reflector" ? (
        <rect x={x0 + 8} y={top - 6} width={7} height={6} fill="currentColor" />
      ) : kind === "prime focus" ? (
        <rect x={x0 - 7} y={y - 3.5} width={7} height={7} fill="currentColor" />
      ) : (
        <rect x={71} y={y - 4} width={8} height={8} fill="currentColor" />
      )}
    </svg>
  );
}

/** The filters over the pixels of a colour sensor. */
const MOSAIC = ["var(--ch-r)", "var(--ch-g)", "var(--ch-g)", "var(--ch-b)"] as const;

/** A camera from the front with its sensor, all sensors to one scale: in colour chequered, in monochrome plain, an outline where nobody said. */
export function CameraPicture({
  cooled,
  widthPx,
  heightPx,
  pixelUm,
  isColour,
}: Pick<TypicalCamera, "cooled" | "widthPx" | "heightPx" | "pixelUm"> & { readonly isColour: boolean | null }) {
  const [w, h] = [(widthPx * pixelUm * 0.8) / 1000, (heightPx * pixelUm * 0.8) / 1000]; // 0.8 of its mm
  const box = { x: 28 - w / 2, y: 21 - h / 2, width: w, height: h };
  const mosaic = useId();
  return (
    <svg viewBox="0 0 56 40" className="h-10 w-14 shrink-0" aria-hidden="true">
      {cooled ? <circle cx="28" cy="20" r="18.5" {...LINE} /> : <path d="M3 9h12l4-5h18l4 5h12v28H3z" {...LINE} />}
      {isColour ? (
        <pattern id={mosaic} width="4" height="4" patternUnits="userSpaceOnUse">
          {MOSAIC.map((fill, i) => (
            <rect key={i} x={(i % 2) * 2} y={i < 2 ? 0 : 2} width="2" height="2" style={{ fill }} />
          ))}
        </pattern>
      ) : null}
      {isColour === null ? (
        <rect {...box} {...LINE} strokeDasharray="2 2" />
      ) : isColour ? (
        <rect {...box} fill={`url(#${mosaic})`} />
      ) : (
        <rect {...box} fill="currentColor" opacity="0.75" />
      )}
    </svg>
  );
}

/** A sky by the look of it: how many stars, and how high the glow of the ground reaches. */
export function SkyPicture({ magPerArcsec2 }: { readonly magPerArcsec2: number }) {
  const dark = Math.min(1, Math.max(0, (magPerArcsec2 - 18) / 3.6));
  const stars = Math.round(4 + 46 * dark * dark);
  return (
    <svg viewBox="0 0 84 40" className="h-10 w-21 shrink-0" aria-hidden="true">
      {Array.from({ length: stars }, (_, i) => (
        <circle
          key={i}
          cx={2 + ((i * 37.7) % 80)}
          cy={2 + ((i * 17.3) % (14 + 16 * dark))}
          r={i % 5 === 0 ? 1 : 0.6}
          fill="currentColor"
        />
      ))}
      {dark > 0.55 ? (
        <path d="M8 2Q38 16 64 31" fill="none" stroke="currentColor" strokeWidth={7 * dark} opacity={0.22 * dark} />
      ) : null}{" "}
      {Array.from({ length: 7 }, (_, i) => (
        <path
          key={i}
          d={`M0 ${36 - i * (1 - dark) * 4}h84`}
          stroke="currentColor"
          strokeWidth="0.7"
          opacity={(1 - dark) * (0.9 - i * 0.11)}
        />
      ))}
      <path d="M0 37h12v-5h8v5h14v-7l5-4 5 4v7h40" {...LINE} />
    </svg>
  );
}
