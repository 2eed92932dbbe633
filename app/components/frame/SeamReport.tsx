import { panelName, type SeamStar } from "~/core/framing";
import type { Equatorial } from "~/core/sky";

/** A star as the seam report names it. */
export interface NamedStar extends Equatorial<"icrs"> {
  readonly magnitude: number;
  readonly name: string;
}

/** Bright stars where panels join, worst first. */
export function SeamReport({
  found,
  limit,
}: {
  readonly found: readonly SeamStar<NamedStar>[];
  readonly limit: number;
}) {
  if (found.length === 0) return <p className="text-sage">No star brighter than {limit} lies where panels join.</p>;
  return (
    <>
      <ul className="text-note">
        {found.slice(0, 8).map((f) => (
          <li key={`${f.star.raDeg} ${f.star.decDeg}`} className="border-rule flex justify-between gap-3 border-t py-1">
            <span>
              <span className="font-semibold">{f.star.magnitude.toFixed(1)}</span> {f.star.name}
            </span>
            <span className="text-soft">
              {f.seam.between.map(panelName).join(" | ")}, {f.fromMiddleArcmin.toFixed(1)}′ from the middle
            </span>
          </li>
        ))}
      </ul>
      {found.length > 8 ? <p className="text-note text-faint">and {found.length - 8} fainter</p> : null}
    </>
  );
}
