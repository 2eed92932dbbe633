import { deprojectTan } from "~/core/framing";
import { err, ok, type Result } from "~/core/result";
import { positionAngleDeg, separationDeg, type Equatorial } from "~/core/sky";
import { wrap360 } from "~/core/units";
import type { FitsHeader } from "./fits-header";
import { sipOf, type Distortion } from "./fits-sip";

/** A plate solution reduced to what a frame is. */
export interface FitsWcs {
  readonly form: "CD" | "PC" | "CDELT+CROTA2" | "CDELT";
  /** Lens distortion as SIP polynomials has been taken in. */
  readonly isDistorted: boolean;
  readonly centre: Equatorial<"icrs">;
  readonly scaleXArcsec: number;
  readonly scaleYArcsec: number;
  /** Of the direction of rising rows (+y) at the centre, north through east. */
  readonly positionAngleDeg: number;
  readonly isMirrored: boolean;
  /** The picture as it is shown: with rows from the top down, where the header says so by ROWORDER, else as they rise. */
  readonly shown: { readonly positionAngleDeg: number; readonly isMirrored: boolean };
  /** Outer corners: top left, top right, bottom right, bottom left with +y up and +x right. */
  readonly corners: readonly Equatorial<"icrs">[];
}

/** Why a header gives no solution: which part of it is missing, not read here, or impossible. */
export interface WcsFault {
  readonly code:
    | "frameNoImage"
    | "frameNoSolution"
    | "frameNotTan"
    | "frameSingular"
    | "frameTooLarge"
    /** Positions of another equinox or system than ICRS and J2000. */
    | "frameSystem"
    /** A reference value that is no position. */
    | "frameNoPosition"
    /** Turned by LONPOLE or LATPOLE, which no solver of pictures does. */
    | "framePole";
  readonly found: string;
}

type Matrix = readonly [number, number, number, number];
type Lookup = (name: string) => number | null;

/** Degrees per pixel: x right, y up → first and second world axis. Calabretta & Greisen 2002, A&A 395, 1077; CROTA2 by AIPS memo 27. */
function matrixOf(number: Lookup): { readonly form: FitsWcs["form"]; readonly m: Matrix } | null {
  const all = (prefix: string) => [`${prefix}1_1`, `${prefix}1_2`, `${prefix}2_1`, `${prefix}2_2`].map(number);
  const cd = all("CD");
  if (cd.some((v) => v !== null)) return { form: "CD", m: cd.map((v) => v ?? 0) as unknown as Matrix };
  const [dx, dy] = [number("CDELT1"), number("CDELT2")];
  if (dx === null || dy === null) return null;
  // A draft of the standard numbered the axes in three digits each: PC001001.
  const now = all("PC");
  const pc = now.some((v) => v !== null)
    ? now
    : ["PC001001", "PC001002", "PC002001", "PC002002"].map((name) => number(name));
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
  readonly isDistorted: boolean;
}

const [J2000, OLDEST_FK5] = [2000, 1984];
const SAME_EQUINOX_YR = 0.01; // 0.5″ of precession
const MOST_TURNS_DEG = 720;

/** What is wrong with the system of a header's positions; null when they are ICRS or FK5 of J2000 (0.02″ apart). FITS Standard 4.0, § 8.3. */
function systemFault(header: FitsHeader, number: Lookup): string | null {
  const said = header.values.get("RADESYS") ?? header.values.get("RADECSYS");
  const equinox = number("EQUINOX") ?? number("EPOCH");
  const system =
    typeof said === "string" && said.trim() !== ""
      ? said.trim().toUpperCase()
      : equinox === null
        ? "ICRS"
        : equinox < OLDEST_FK5
          ? "FK4"
          : "FK5";
  if (system === "ICRS") return null;
  if (system !== "FK5") return equinox === null ? system : `${system}, equinox ${equinox}`;
  return equinox === null || Math.abs(equinox - J2000) <= SAME_EQUINOX_YR ? null : `FK5, equinox ${equinox}`;
}

/** The world axes in their order: which is the right ascension. */
function axesOf(header: FitsHeader): { readonly isSwapped: boolean; readonly isSip: boolean } | WcsFault {
  const [one, two] = ["CTYPE1", "CTYPE2"].map((name) => header.values.get(name));
  if (typeof one !== "string" || header.values.get("CRVAL1") === undefined)
    return { code: "frameNoSolution", found: "" };
  const isRa = (t: unknown) => typeof t === "string" && /^RA---TAN(-SIP)?\s*$/.test(t);
  const isDec = (t: unknown) => typeof t === "string" && /^DEC--TAN(-SIP)?\s*$/.test(t);
  const isSip = one.includes("-SIP");
  if (isRa(one) && (two === undefined || isDec(two))) return { isSwapped: false, isSip };
  if (isDec(one) && isRa(two)) return { isSwapped: true, isSip };
  return { code: "frameNotTan", found: typeof two === "string" ? `${one}, ${two}` : one };
}

function solutionOf(header: FitsHeader): Result<Solution, WcsFault> {
  const number: Lookup = (name) => {
    const v = header.values.get(name);
    return typeof v === "number" && Number.isFinite(v) ? v : null;
  };
  const axes = axesOf(header);
  if ("code" in axes) return err(axes);
  const system = systemFault(header, number);
  if (system !== null) return err({ code: "frameSystem", found: system });
  const found = matrixOf(number);
  const [v1, v2, px, py] = [number("CRVAL1"), number("CRVAL2"), number("CRPIX1"), number("CRPIX2")];
  if (!found || v1 === null || v2 === null || px === null || py === null)
    return err({ code: "frameNoSolution", found: "" });
  const [ra, decDeg] = axes.isSwapped ? [v2, v1] : [v1, v2];
  if (Math.abs(decDeg) > 90 || Math.abs(ra) > MOST_TURNS_DEG)
    return err({ code: "frameNoPosition", found: `${ra}, ${decDeg}` });
  const pole = number("LONPOLE");
  if (pole !== null && Math.abs(pole - 180) > 1e-6) return err({ code: "framePole", found: String(pole) });
  const m = found.m;
  const [a, b, c, d] = axes.isSwapped ? [m[2], m[3], m[0], m[1]] : m;
  const determinant = a * d - b * c;
  if (determinant === 0) return err({ code: "frameSingular", found: "" });
  const bend: Distortion | null = axes.isSip ? sipOf(number) : null;
  const tangent = { frame: "icrs", raDeg: wrap360(ra), decDeg } as const;
  const at: PixelToSky = (x, y) => {
    const [u, v] = bend ? bend(x - px, y - py) : [x - px, y - py];
    return deprojectTan(tangent, { xiDeg: a * u + b * v, etaDeg: c * u + d * v });
  };
  return ok({ form: found.form, at, determinant, isDistorted: bend !== null });
}

/** Where the pixels of a solved image lie (TAN, with SIP distortion); null without a solution. */
export function pixelToSky(header: FitsHeader): PixelToSky | null {
  const solution = solutionOf(header);
  return solution.ok ? solution.value.at : null;
}

const LARGEST_DEG = 60;

/** Reads a celestial TAN solution, distortion included, or says which part of it is missing, impossible or of another kind. */
export function readWcs(header: FitsHeader): Result<FitsWcs, WcsFault> {
  const [nx, ny] = header.axes;
  if (!nx || !ny) return err({ code: "frameNoImage", found: header.axes.join(" × ") });
  const solution = solutionOf(header);
  if (!solution.ok) return solution;
  const { at, form, determinant, isDistorted } = solution.value;
  // Rows stored from the top: what is up in the picture is down in the file.
  const order = header.values.get("ROWORDER");
  const isTopDown = typeof order === "string" && /^top/i.test(order.trim());
  const [mx, my] = [(nx + 1) / 2, (ny + 1) / 2];
  const upDeg = positionAngleDeg(at(mx, my), at(mx, my + 1));
  const scaleXArcsec = 3600 * separationDeg(at(mx - 0.5, my), at(mx + 0.5, my));
  const scaleYArcsec = 3600 * separationDeg(at(mx, my - 0.5), at(mx, my + 0.5));
  const sideDeg = Math.max(nx * scaleXArcsec, ny * scaleYArcsec) / 3600;
  if (!(sideDeg <= LARGEST_DEG)) return err({ code: "frameTooLarge", found: `${sideDeg.toFixed(0)}°` });
  return ok({
    form,
    isDistorted,
    centre: at(mx, my),
    scaleXArcsec,
    scaleYArcsec,
    positionAngleDeg: upDeg,
    isMirrored: determinant > 0,
    shown: { positionAngleDeg: isTopDown ? wrap360(upDeg + 180) : upDeg, isMirrored: determinant > 0 !== isTopDown },
    corners: [at(0.5, ny + 0.5), at(nx + 0.5, ny + 0.5), at(nx + 0.5, 0.5), at(0.5, 0.5)],
  });
}
