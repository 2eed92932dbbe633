import { counted, fixed } from "~/components/numbers";
import { mosaicArea, mosaicExtent, toleratedTurnDeg, type MosaicLayout, type Panel } from "~/core/framing";
import { formatHoursMinutes } from "~/core/notation";

const NEAR_POLE_DEG = 60; // below it only the width of a mosaic makes the angles differ

/** What a person should know before trusting a mosaic: too little overlap, camera angles that differ, a field beyond the plane. */
export function MosaicCautions({
  layout,
  panels,
}: {
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
}) {
  const extent = mosaicExtent(layout);
  const off = (deg: number) => Math.abs(((((deg - layout.positionAngleDeg + 90) % 180) + 180) % 180) - 90);
  const most = Math.max(0, ...panels.map((p) => off(p.positionAngleDeg)));
  const shared = Math.min(layout.overlap, layout.overlapRows ?? layout.overlap);
  const bearsDeg = toleratedTurnDeg(layout);
  const isPolar = Math.abs(layout.centre.decDeg) >= NEAR_POLE_DEG;
  const isWide = Math.hypot(extent.widthArcmin, extent.heightArcmin) / 60 > 60;
  return (
    <>
      {isWide ? (
        <p className="text-rust mb-2">
          Over 60° from corner to corner: the plane the panels are laid out on stretches there. Plan it in parts.
        </p>
      ) : null}
      {panels.length > 1 && shared < 0.1 ? (
        <p className="text-rust mb-2">
          {shared === 0 ? "Without overlap the panels only touch" : `${fixed(shared * 100)} % is little`}: 10 to 25 % is
          usual, or pointing and dither leave gaps.
        </p>
      ) : null}
      {panels.length > 1 && most > 1 ? (
        <p className="mb-2">
          {isPolar ? "So near the pole" : "Over so wide a mosaic"} the camera angle differs from panel to panel, by up
          to {fixed(most, 1)}°: turn the camera for each one (see Panels), or share more.
        </p>
      ) : null}
      {panels.length > 1 && shared > 0 ? (
        <p className="text-soft mb-3">
          A camera angle wrong by up to {fixed(bearsDeg, 1)}° still overlaps; within 1° is fine.
        </p>
      ) : null}
    </>
  );
}

/** How much sky, how many panels, and what that means in hours and nights here. */
export function AreaWords({
  layout,
  panels,
  hoursPerPanel,
  hoursANight,
}: {
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  readonly hoursPerPanel: number;
  /** Usable hours of a night like the one chosen. */
  readonly hoursANight: number;
}) {
  const extent = mosaicExtent(layout);
  const { uniqueDeg2, framesDeg2 } = mosaicArea(layout);
  const hours = panels.length * hoursPerPanel;
  const deg = (arcmin: number) => fixed(arcmin / 60, 2);
  return (
    <p className="mb-3">
      {deg(extent.widthArcmin)}° × {deg(extent.heightArcmin)}°
      {panels.length > 1
        ? `, ${panels.length} panels: ${panels.length} times the hours. ${fixed(uniqueDeg2, 2)} square degrees, ${Math.round((100 * uniqueDeg2) / framesDeg2)} % of what is shot.`
        : "."}
      {hours > 0
        ? ` ${formatHoursMinutes(hours)} in all${hoursANight > 0 ? `, ${counted(Math.ceil(hours / hoursANight), "clear night")} like this one` : ""}.`
        : ""}
    </p>
  );
}
