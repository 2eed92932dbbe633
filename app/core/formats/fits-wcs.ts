import { deprojectTan } from "~/core/framing";
import { positionAngleDeg, separationDeg, type Equatorial } from "~/core/sky";
import type { FitsHeader } from "./fits-header";

/** A plate solution reduced to what a frame is. */
export interface FitsWcs {
  readonly form: "CD" | "PC" | "CDELT+CROTA2" | "CDELT";
  readonly centre: Equatorial<"icrs">;
  readonly scaleXArcsec: number;
  readonly scaleYArcsec: number;
  /** Of the direction of rising rows (+y) at the centre, north through east. */
  readonly positionAngleDeg: number;
  readonly isMirrored: boolean;
  /** Outer corners: top left, top right, bottom right, bottom left with +y up and +x right. */
  readonly corners: readonly Equatorial<"icrs">[];
}

type Matrix = readonly [number, number, number, number];

/** Degrees per pixel: x right, y up → ξ, η. Calabretta & Greisen 2002, A&A 395, 1077; CROTA2 by AIPS memo 27. */
function matrixOf(
  number: (name: string) => number | null,
): { readonly form: FitsWcs["form"]; readonly m: Matrix } | null {
  const all = (prefix: string) => [`${prefix}1_1`, `${prefix}1_2`, `${prefix}2_1`, `${prefix}2_2`].map(number);
  const cd = all("CD");
  if (cd.some((v) => v !== null)) return { form: "CD", m: cd.map((v) => v ?? 0) as unknown as Matrix };
  const [dx, dy] = [number("CDELT1"), number("CDELT2")];
  if (dx === null || dy === null) return null;
  const pc = all("PC");
  if (pc.some((v) => v !== null)) {
    const [a, b, c, d] = [pc[0] ?? 1, pc[1] ?? 0, pc[2] ?? 0, pc[3] ?? 1] as const;
    return { form: "PC", m: [dx * a, dx * b, dy * c, dy * d] };
  }
  const rotation = number("CROTA2");
  const r = ((rotation ?? 0) * Math.PI) / 180;
  return {
    form: rotation === null ? "CDELT" : "CDELT+CROTA2",
    m: [dx * Math.cos(r), -dy * Math.sin(r), dx * Math.sin(r), dy * Math.cos(r)],
  };
}

/** The direction at a pixel of a solved image: centres are whole numbers from 1. */
export type PixelToSky = (x: number, y: number) => Equatorial<"icrs">;

interface Solution {
  readonly form: FitsWcs["form"];
  readonly at: PixelToSky;
  readonly determinant: number;
}

function solutionOf(header: FitsHeader): Solution | null {
  const number = (name: string) => {
    const v = header.values.get(name);
    return typeof v === "number" ? v : null;
  };
  const type = header.values.get("CTYPE1");
  const found = matrixOf(number);
  const [raDeg, decDeg, px, py] = [number("CRVAL1"), number("CRVAL2"), number("CRPIX1"), number("CRPIX2")];
  if (
    typeof type !== "string" ||
    !/^RA---TAN/.test(type) ||
    !found ||
    raDeg === null ||
    decDeg === null ||
    px === null ||
    py === null
  )
    return null;
  const [a, b, c, d] = found.m;
  const determinant = a * d - b * c;
  if (determinant === 0) return null;
  const at: PixelToSky = (x, y) =>
    deprojectTan(
      { frame: "icrs", raDeg, decDeg },
      { xiDeg: a * (x - px) + b * (y - py), etaDeg: c * (x - px) + d * (y - py) },
    );
  return { form: found.form, at, determinant };
}

/** Where the pixels of a solved image lie (TAN, without SIP's small distortion); null without a solution. */
export const pixelToSky = (header: FitsHeader): PixelToSky | null => solutionOf(header)?.at ?? null;

/** Reads a celestial TAN solution (TAN-SIP without its small distortion); null when there is none. */
export function readWcs(header: FitsHeader): FitsWcs | null {
  const solution = solutionOf(header);
  if (!solution) return null;
  const { at, form, determinant } = solution;
  const [nx, ny] = [header.axes[0]!, header.axes[1]!];
  const [mx, my] = [(nx + 1) / 2, (ny + 1) / 2];
  return {
    form,
    centre: at(mx, my),
    scaleXArcsec: 3600 * separationDeg(at(mx - 0.5, my), at(mx + 0.5, my)),
    scaleYArcsec: 3600 * separationDeg(at(mx, my - 0.5), at(mx, my + 0.5)),
    positionAngleDeg: positionAngleDeg(at(mx, my), at(mx, my + 1)),
    isMirrored: determinant > 0,
    corners: [at(0.5, ny + 0.5), at(nx + 0.5, ny + 0.5), at(nx + 0.5, 0.5), at(0.5, 0.5)],
  };
}
