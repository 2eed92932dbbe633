import type { CatalogEntry } from "~/core/catalog";
import { bestEllipseAngle, type Optics } from "~/core/framing";
import { wrap360 } from "~/core/units";
import { Button } from "~/components/ui/Button";

/** Lays the object's long axis along the frame's long side, or where it fills the frame least. */
export function SnapButtons({
  target,
  optics,
  onTurn,
}: {
  readonly target: CatalogEntry;
  readonly optics: Optics;
  readonly onTurn: (positionAngleDeg: number) => void;
}) {
  const { majorArcmin, minorArcmin, positionAngleDeg } = target;
  if (majorArcmin === null || minorArcmin === null || positionAngleDeg === null || minorArcmin >= majorArcmin)
    return null;
  const [w, h] = [optics.planeWidthArcmin, optics.planeHeightArcmin];
  // The frame's width lies 90° from its up axis.
  const along = positionAngleDeg + (w >= h ? 90 : 0);
  const best = bestEllipseAngle(
    { major: majorArcmin, minor: minorArcmin },
    { long: Math.max(w, h), short: Math.min(w, h) },
  );
  const tidy = (deg: number) => (Math.round(wrap360(deg) * 10) / 10) % 180;
  return (
    <div className="mt-3 flex flex-wrap gap-2">
      <Button onClick={() => onTurn(tidy(along))}>Long axis along the long side</Button>
      {best.angleDeg > 1 ? (
        <Button onClick={() => onTurn(tidy(along + best.angleDeg))}>
          Towards the diagonal: fills {Math.round(best.fill * 100)} %
        </Button>
      ) : null}
    </div>
  );
}
