import { Link } from "react-router";
import type { Channel } from "~/core/exposure";
import { formatMinutes } from "~/core/notation";
import { Panel } from "./ui/Panel";
import { Why } from "./ui/Why";

/** The same target on the same night from all one's places, best first. */
export function PlacesCompared({
  places,
  hereName,
  channel,
  linkTo,
}: {
  readonly places: readonly {
    readonly id: string;
    readonly name: string;
    readonly skyMagPerArcsec2: number;
    readonly usableMin: number;
    readonly hereMin: number;
  }[];
  readonly hereName: string;
  readonly channel: Channel;
  readonly linkTo: (id: string) => string;
}) {
  return (
    <Panel title="From your places this night" aside={channel}>
      <ul>
        {[...places]
          .sort((a, b) => b.hereMin - a.hereMin)
          .map((p) => (
            <li key={p.id} className="border-rule grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 border-t py-1.5">
              <Link to={linkTo(p.id)} className="min-h-6 hover:underline">
                {p.name}
              </Link>
              <span className="font-semibold">{formatMinutes(p.hereMin)}</span>
              <span className="text-note text-faint">{p.skyMagPerArcsec2.toFixed(1)} mag/arcsec²</span>
              <span className="text-note text-faint text-right">{formatMinutes(p.usableMin)} usable</span>
            </li>
          ))}
      </ul>
      <p className="text-note text-soft mt-2">
        <Why title={`In hours at the zenith of ${hereName}`}>
          <p>
            Usable time there, weighted by altitude and Moon, times 10^(0.4 Δμ) for its darker or brighter sky. Holds
            for faint extended light with the same rig; it overstates the gain for bright objects and for narrow bands
            limited by read noise. Travel and set-up are not taken off.
          </p>
        </Why>
      </p>
    </Panel>
  );
}
