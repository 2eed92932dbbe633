import type { Equatorial } from "~/core/sky";
import { deprojectTan, projectTan } from "./tangent";

/** A picture pinned to the sky: directions at the nodes of an even grid over it, row by row from its top left. */
export interface SkyMesh {
  readonly columns: number;
  readonly rows: number;
  /** (columns + 1) × (rows + 1) directions as [ra, dec]. */
  readonly nodes: readonly (readonly [raDeg: number, decDeg: number])[];
}

/** Cells along a side that keep a flat drawing of each within a pixel of the map: one to 3°, eight beyond 20°. */
export const meshCells = (sideDeg: number): number => (sideDeg < 3 ? 1 : sideDeg < 8 ? 2 : sideDeg < 20 ? 4 : 8);

/** A mesh from a function of the share across (left to right) and down (top to bottom). */
export function meshOf(at: (across: number, down: number) => Equatorial<"icrs">, cells: number): SkyMesh {
  const nodes = Array.from({ length: (cells + 1) ** 2 }, (_, i) => {
    const p = at((i % (cells + 1)) / cells, Math.floor(i / (cells + 1)) / cells);
    return [p.raDeg, p.decDeg] as const;
  });
  return { columns: cells, rows: cells, nodes };
}

/** Four corners as somebody gives them: top left, top right, bottom right, bottom left. */
export type FourCorners = readonly [Equatorial<"icrs">, Equatorial<"icrs">, Equatorial<"icrs">, Equatorial<"icrs">];

/** Why four corners hold no picture. */
export type CornerFault = "tooFar" | "crossed" | "flat";

/**
 * A mesh from four corners: straight lines between them on the plane that touches the sphere in their middle, exact for an
 * undistorted picture. Crossed or flat corners, and those further than 60° apart, are refused.
 */
export function meshFromCorners(corners: FourCorners): SkyMesh | CornerFault {
  const [a, b, c, d] = corners;
  const first = projectTan(a, c);
  if (!first || Math.hypot(first.xiDeg, first.etaDeg) > 60) return "tooFar";
  const middle = deprojectTan(a, { xiDeg: first.xiDeg / 2, etaDeg: first.etaDeg / 2 });
  const plane = [a, b, c, d].map((p) => projectTan(middle, p));
  if (plane.some((p) => !p || Math.hypot(p.xiDeg, p.etaDeg) > 40)) return "tooFar";
  const [pa, pb, pc, pd] = plane as [
    { xiDeg: number; etaDeg: number },
    { xiDeg: number; etaDeg: number },
    { xiDeg: number; etaDeg: number },
    { xiDeg: number; etaDeg: number },
  ];
  const cross = (o: typeof pa, p: typeof pa, q: typeof pa) =>
    (p.xiDeg - o.xiDeg) * (q.etaDeg - o.etaDeg) - (p.etaDeg - o.etaDeg) * (q.xiDeg - o.xiDeg);
  const turns = [cross(pa, pb, pc), cross(pb, pc, pd), cross(pc, pd, pa), cross(pd, pa, pb)];
  if (turns.some((t) => Math.abs(t) < 1e-9)) return "flat";
  if (new Set(turns.map(Math.sign)).size > 1) return "crossed";
  const side = Math.max(
    Math.hypot(pb.xiDeg - pa.xiDeg, pb.etaDeg - pa.etaDeg),
    Math.hypot(pd.xiDeg - pa.xiDeg, pd.etaDeg - pa.etaDeg),
  );
  const mix = (u: number, v: number, of: "xiDeg" | "etaDeg") =>
    (1 - v) * ((1 - u) * pa[of] + u * pb[of]) + v * ((1 - u) * pd[of] + u * pc[of]);
  return meshOf(
    (u, v) => deprojectTan(middle, { xiDeg: mix(u, v, "xiDeg"), etaDeg: mix(u, v, "etaDeg") }),
    meshCells(side),
  );
}
