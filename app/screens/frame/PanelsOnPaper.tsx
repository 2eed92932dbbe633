import { fixed } from "~/components/numbers";
import type { MosaicLayout, Panel } from "~/core/framing";
import { formatDeclination, formatRightAscension } from "~/core/notation";
import { panelLabel, type FrameData } from "~/core/plan";
import { AreaWords } from "./MosaicWords";

/** Beside the mount, on paper: every panel in the order of shooting, with a box to tick. */
export function PanelsOnPaper({
  frame,
  layout,
  panels,
  hoursPerPanel,
  hoursANight,
}: {
  readonly frame: FrameData;
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  readonly hoursPerPanel: number;
  readonly hoursANight: number;
}) {
  return (
    <div className="hidden print:block">
      <div className="mt-3">
        <AreaWords layout={layout} panels={panels} hoursPerPanel={hoursPerPanel} hoursANight={hoursANight} />
      </div>
      <table className="w-full text-lg">
        <thead className="text-left">
          <tr>
            <th scope="col">Panel</th>
            <th scope="col">Right ascension, ICRS</th>
            <th scope="col">Declination</th>
            <th scope="col" className="text-right">
              Camera, north to east
            </th>
          </tr>
        </thead>
        <tbody>
          {panels.map((p) => (
            <tr key={p.number} className="border-rule break-inside-avoid border-t">
              <th scope="row" className="py-1 text-left">
                <span className="border-ink mr-2 inline-block h-3 w-3 rounded-[2px] border" aria-hidden="true" />
                {panelLabel(frame, p.number)}
              </th>
              <td>{formatRightAscension(p.centre.raDeg)}</td>
              <td>{formatDeclination(p.centre.decDeg)}</td>
              <td className="text-right">{fixed(p.positionAngleDeg, 2)}°</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
