import { counted, fixed, roomWords } from "~/components/numbers";
import { compareRig, type Channel, type KitUnderSky } from "~/core/exposure";
import { formatHoursMinutes } from "~/core/notation";
import { Why } from "~/components/ui/Why";

/** A rig that the picture could be taken with. */
export interface ComparedKit extends KitUnderSky {
  readonly id: string;
  /** Where it stands. */
  readonly placeName: string;
}

/** The same picture with every rig at hand, friends' too: panels, hours for the same depth channel by channel, detail, disk, nights. */
export function ComparePanel({
  firstId,
  kits,
  goals,
  widthArcmin,
  heightArcmin,
  panels,
  overlap,
  hoursANight,
  shown,
  onShow,
}: {
  readonly firstId: string;
  readonly kits: readonly ComparedKit[];
  readonly goals: readonly { readonly channel: Channel; readonly hoursPerPanel: number; readonly subSec: number }[];
  readonly widthArcmin: number;
  readonly heightArcmin: number;
  readonly panels: number;
  readonly overlap: number;
  /** Usable hours of this night here; 0 when it has none. */
  readonly hoursANight: number;
  /** Rigs whose field is drawn on the chart, by id. */
  readonly shown: readonly string[];
  readonly onShow: (rigIds: readonly string[]) => void;
}) {
  const first = kits.find((k) => k.id === firstId);
  const wanted = goals.filter((g) => g.hoursPerPanel > 0);
  if (!first || wanted.length === 0)
    return <p className="text-soft">Set hours under Budget first: they are what is compared.</p>;
  const lines = kits.map((kit) => {
    const c = compareRig({ first, other: kit, goals: wanted, widthArcmin, heightArcmin, overlap });
    // This rig's own panels are as drawn, left out or put down by hand.
    const count = kit.id === firstId ? panels : c.columns * c.rows;
    const grid = kit.id === firstId || count === 1 ? String(count) : `${c.columns} × ${c.rows}`;
    const hours = c.hoursPerPanel === null ? null : c.hoursPerPanel * count;
    return { kit, c, grid, hours, gigabytes: (c.megabytes * count) / (c.columns * c.rows) / 1000 };
  });
  const ranked = [...lines].sort((a, b) => (a.hours ?? Infinity) - (b.hours ?? Infinity));
  return (
    <>
      <ul>
        {ranked.map(({ kit, c, grid, hours, gigabytes }) => (
          <li key={kit.id} className="border-rule border-t py-1.5">
            <div className="flex justify-between gap-3">
              <span className={kit.id === firstId ? "font-semibold" : ""}>{kit.rig.name}</span>
              <span className="font-semibold">{hours === null ? "–" : formatHoursMinutes(hours)}</span>
            </div>
            {c.missing.length > 0 ? (
              <p className="text-note text-lamp">Not ranked: nothing for {c.missing.join(" and ")} in this rig.</p>
            ) : null}
            <p className="text-note text-soft">
              {grid === "1" ? "one frame" : `${grid} panels`}
              {c.hoursPerPanel === null ? "" : ` of ${formatHoursMinutes(c.hoursPerPanel)}`} ·{" "}
              {fixed(c.pixelScaleArcsecPerPx, 2)} ″/px
              {kit.id === firstId
                ? ""
                : c.detail >= 1
                  ? `, ${fixed(c.detail, 1)} × finer`
                  : `, ${fixed(1 / c.detail, 1)} × coarser`}{" "}
              · {kit.placeName}, {fixed(kit.skyMagPerArcsec2, 1)} mag/arcsec²
              {hours === null ? "" : ` · ${roomWords(gigabytes * 1e9)}`}
              {hours !== null && hoursANight > 0
                ? ` · ${counted(Math.ceil(hours / hoursANight), "night")} like this`
                : ""}
              {c.filled < 0.5 && grid === "1"
                ? ` · the picture is ${Math.round(100 * c.filled)} % of its frame, crop it`
                : ""}
              {kit.rig.isColour === first.rig.isColour ? "" : kit.rig.isColour ? " · colour camera" : " · mono camera"}
            </p>
            {c.channels.length > 1 && hours !== null ? (
              <p className="text-note text-faint">
                {c.channels
                  .flatMap((h) =>
                    h.hoursPerPanel === null ? [] : [`${h.channel} ${formatHoursMinutes(h.hoursPerPanel)}`],
                  )
                  .join(", ")}
                {kit.rig.isColour ? " a panel, taken at once" : " a panel"}
              </p>
            ) : null}
            {kit.id === firstId ? null : (
              <label className="text-note mt-1 flex min-h-6 items-center gap-2">
                <input
                  type="checkbox"
                  checked={shown.includes(kit.id)}
                  onChange={(e) => onShow(e.target.checked ? [...shown, kit.id] : shown.filter((id) => id !== kit.id))}
                />
                Its field on the chart
              </label>
            )}
          </li>
        ))}
      </ul>
      <p className="text-note text-soft mt-2">
        <Why title="For the same depth per area">
          <p>
            Channel by channel with the filters each rig really has, under the sky where it was last used: aperture area
            × throughput × quantum efficiency × filter × dye × share of pixels, times the bandwidth for broad bands and
            divided by it for lines, over the sky’s flux. Sky-limited; read noise is not counted. A colour camera takes
            its colours at once and no luminance; the dyes are as we remember them, not measured. Finer pixels show more
            only down to the seeing. Nights: usable hours of the chosen night, all of them clear.
          </p>
        </Why>
      </p>
    </>
  );
}
