import { skyToFrame, type MosaicLayout } from "~/core/framing";
import type { NamedStar } from "./SeamReport";
import type { FrameView } from "./load";

/** What the search for a better place starts from: stars and the target in the mosaic's frame. */
export function placementTask({
  layout,
  near,
  target,
}: {
  readonly layout: MosaicLayout;
  readonly near: readonly NamedStar[];
  readonly target: FrameView["target"];
}) {
  const stars = near.flatMap((s) => {
    const p = skyToFrame(layout, s);
    return p ? [{ ...p, magnitude: s.magnitude }] : [];
  });
  const subject = target ? skyToFrame(layout, target.at) : null;
  const outline = target?.majorArcmin
    ? {
        majorArcmin: target.majorArcmin,
        minorArcmin: target.minorArcmin ?? target.majorArcmin,
        angleDeg: (target.positionAngleDeg ?? 0) - layout.positionAngleDeg,
      }
    : null;
  // The outline is told about the mosaic's own centre: with the target elsewhere it says nothing.
  const isCentred = subject !== null && Math.hypot(subject.xArcmin, subject.yArcmin) < 0.25 * layout.planeHeightArcmin;
  return { layout, stars, outline: isCentred ? outline : null, subject };
}
