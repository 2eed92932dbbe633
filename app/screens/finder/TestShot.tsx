import { fixed } from "~/components/numbers";
import type { Optics } from "~/core/framing";
import { compass } from "~/components/words/compass";
import { Panel } from "~/components/ui/Panel";

/** What a short exposure must show when the telescope points right, and how far off it may be. */
export function TestShot({
  optics,
  rigName,
  stars,
}: {
  readonly optics: Optics;
  readonly rigName: string;
  /** The brightest stars in the field. */
  readonly stars: readonly { readonly magnitude: number; readonly arcmin: number; readonly positionAngleDeg: number }[];
}) {
  const shortArcmin = Math.min(optics.planeWidthArcmin, optics.planeHeightArcmin);
  const seconds = optics.focalRatio <= 5 ? 10 : optics.focalRatio <= 7 ? 20 : 30;
  return (
    <Panel title="Test shot" aside={rigName}>
      <p>
        {seconds} s at the highest gain, binned 2×2. The field is {fixed(optics.planeWidthArcmin / 60, 1)}° ×{" "}
        {fixed(optics.planeHeightArcmin / 60, 1)}°: the target is in it when you point within {fixed(shortArcmin / 2)}′.
      </p>
      {stars.length > 0 ? (
        <>
          <p className="mt-2">When it is centred, look for</p>
          <ul className="mt-1 space-y-0.5">
            {stars.map((s) => (
              <li key={`${s.arcmin} ${s.positionAngleDeg}`}>
                magnitude {fixed(s.magnitude, 1)}, {fixed(s.arcmin)}′ to the {compass(s.positionAngleDeg)}
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p className="mt-2">No star above magnitude 11 stands near it: compare fainter ones with the Frame chart.</p>
      )}
      <p className="text-note text-soft mt-2">
        A faint nebula may not show in one short exposure; its stars do. Then move to the final framing and turn the
        camera. Exposure time: common practice, no source.
      </p>
    </Panel>
  );
}
