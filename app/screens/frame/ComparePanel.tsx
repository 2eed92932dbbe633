import { fixed } from "~/components/numbers";
import { compareRig, type Rig } from "~/core/exposure";
import { formatHoursMinutes } from "~/core/notation";
import { Why } from "~/components/ui/Why";

/** The same picture with every rig at hand, friends' too: panels, hours for the same depth, detail, disk, nights. */
export function ComparePanel({
  first,
  firstId,
  rigs,
  widthArcmin,
  heightArcmin,
  panels,
  overlap,
  hoursPerPanel,
  subSec,
  hoursANight,
}: {
  readonly first: Rig;
  readonly firstId: string;
  readonly rigs: readonly { readonly id: string; readonly data: Rig }[];
  readonly widthArcmin: number;
  readonly heightArcmin: number;
  readonly panels: number;
  readonly overlap: number;
  /** All channels together. */
  readonly hoursPerPanel: number;
  readonly subSec: number;
  /** Usable hours of this night here; 0 when it has none. */
  readonly hoursANight: number;
}) {
  if (hoursPerPanel <= 0) return <p className="text-soft">Set hours under Budget first: they are what is compared.</p>;
  const lines = rigs.map(({ id, data }) => {
    const c = compareRig({ first, other: data, widthArcmin, heightArcmin, overlap, hoursPerPanel, subSec });
    // This rig's own panels are as drawn, left out or put down by hand.
    return id === firstId
      ? {
          id,
          data,
          c: { ...c, hours: panels * hoursPerPanel, megabytes: (c.megabytes * panels) / (c.columns * c.rows) },
          grid: `${panels}`,
        }
      : { id, data, c, grid: c.columns * c.rows === 1 ? "1" : `${c.columns} × ${c.rows}` };
  });
  return (
    <>
      <ul>
        {[...lines]
          .sort((a, b) => a.c.hours - b.c.hours)
          .map(({ id, data, c, grid }) => (
            <li key={id} className="border-rule border-t py-1.5">
              <div className="flex justify-between gap-3">
                <span className={id === firstId ? "font-semibold" : ""}>{data.name}</span>
                <span className="font-semibold">{formatHoursMinutes(c.hours)}</span>
              </div>
              <p className="text-note text-soft">
                {grid === "1" ? "one frame" : `${grid} panels`} of {formatHoursMinutes(c.hoursPerPanel)} ·{" "}
                {fixed(c.pixelScaleArcsecPerPx, 2)} ″/px
                {id === firstId
                  ? ""
                  : c.detail >= 1
                    ? `, ${fixed(c.detail, 1)} × finer`
                    : `, ${fixed(1 / c.detail, 1)} × coarser`}{" "}
                · {fixed(c.megabytes / 1000, 1)} GB
                {hoursANight > 0 ? ` · ${Math.ceil(c.hours / hoursANight)} nights like this` : ""}
                {c.filled < 0.5 && grid === "1"
                  ? ` · the picture is ${Math.round(100 * c.filled)} % of its frame, crop it`
                  : ""}
                {data.isColour === first.isColour ? "" : data.isColour ? " · colour camera" : " · mono camera"}
              </p>
            </li>
          ))}
      </ul>
      <p className="text-note text-soft mt-2">
        <Why title="For the same depth per area">
          <p>
            Hours × light grasp (aperture area × throughput × quantum efficiency) of this rig over the other’s, on every
            panel: sky-limited, same sky, same filters. The camera may stand across where that saves panels. Read noise
            is not counted, nor that a colour camera records each colour on a part of its pixels. Finer pixels show more
            only down to the seeing. Nights: usable hours of the chosen night, all of them clear.
          </p>
        </Why>
      </p>
    </>
  );
}
