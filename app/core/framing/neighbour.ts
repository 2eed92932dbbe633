import { positionAngleDeg, separationDeg, type Equatorial } from "~/core/sky";

/** How a wanted object lies in a frame that is aimed at its neighbour. */
export interface NeighbourHold {
  readonly offsetArcmin: number;
  /** From the neighbour to the wanted object. */
  readonly positionAngleDeg: number;
  /** always = at any camera angle; turned = only when the frame's long side points there; outside = at no angle. */
  readonly hold: "always" | "turned" | "outside";
}

const MARGIN = 0.95; // of half a side: the last twentieth is lost to dithers and registration

/**
 * Whether a frame centred on a listed object holds another one of the given size. Plane geometry: good to 0.5 % for frames
 * under 10°. Lengths in arcmin; a size of 0 asks for the centre only.
 */
export function neighbourHold(
  wanted: Equatorial<"icrs"> & { readonly sizeArcmin: number },
  neighbour: Equatorial<"icrs">,
  frame: { readonly widthArcmin: number; readonly heightArcmin: number },
): NeighbourHold {
  const offsetArcmin = separationDeg(neighbour, wanted) * 60;
  const reach = offsetArcmin + wanted.sizeArcmin / 2;
  const [short, long] = [frame.widthArcmin, frame.heightArcmin].sort((a, b) => a - b) as [number, number];
  const isThin = wanted.sizeArcmin / 2 <= (short / 2) * MARGIN;
  const hold = reach <= (short / 2) * MARGIN ? "always" : reach <= (long / 2) * MARGIN && isThin ? "turned" : "outside";
  return { offsetArcmin, positionAngleDeg: positionAngleDeg(neighbour, wanted), hold };
}
