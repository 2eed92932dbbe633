import { fixed } from "~/components/numbers";
import type { SeamStar } from "~/core/framing";
import type { Equatorial } from "~/core/sky";

/** A star as the seam report names it. */
export interface NamedStar extends Equatorial<"icrs"> {
  readonly magnitude: number;
  readonly name: string;
}

const SHOWN = 8;

/** Bright stars where panels join, worst first; pressing one shows it on the chart. */
export function SeamReport({
  found,
  limit,
  labelOf,
  onShow,
}: {
  readonly found: readonly SeamStar<NamedStar>[];
  readonly limit: number;
  readonly labelOf: (panel: number) => string;
  readonly onShow: (star: NamedStar) => void;
}) {
  if (found.length === 0) return <p className="text-sage">No star brighter than {limit} lies where panels join.</p>;
  return (
    <>
      <ul className="text-note">
        {found.slice(0, SHOWN).map((f) => (
          <li key={`${f.star.raDeg} ${f.star.decDeg}`} className="border-rule flex justify-between gap-3 border-t py-1">
            <button
              type="button"
              className="min-h-6 text-left hover:underline"
              title="Show it on the chart"
              onClick={() => onShow(f.star)}
            >
              <span className="font-semibold">{fixed(f.star.magnitude, 1)}</span> {f.star.name}
            </button>
            <span className="text-soft text-right">
              {f.seam.between.map(labelOf).join(" | ")}, {fixed(f.fromMiddleArcmin, 1)}′ from the middle
            </span>
          </li>
        ))}
      </ul>
      {found.length > SHOWN ? <p className="text-note text-faint">and {found.length - SHOWN} fainter</p> : null}
    </>
  );
}
