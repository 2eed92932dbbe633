import { fixed } from "~/components/numbers";
import { Link } from "react-router";
import type { Channel } from "~/core/exposure";
import { formatMinutes } from "~/core/notation";
import type { DriveAnswer } from "~/core/plan";
import { Panel } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";

/** A night of the target from one place. */
export interface PlaceNight {
  readonly id: string;
  readonly name: string;
  readonly skyMagPerArcsec2: number;
  readonly usableMin: number;
  /** In minutes at the zenith of the chosen place. */
  readonly hereMin: number;
  /** One way. */
  readonly travelMin: number;
  /** Null for the chosen place, and for one that is no drive away. */
  readonly drive: DriveAnswer | null;
}

/** When the drive is worth it, in one sentence. */
function driveWords(p: PlaceNight): string {
  const road = formatMinutes(2 * p.travelMin);
  if (p.drive?.kind === "from")
    return `With ${road} of driving it pays off from ${formatMinutes(p.drive.clearMin)} of clear sky there.`;
  return `With ${road} of driving it does not pay off this night, even if all of it is clear.`;
}

/** The same target on the same night from all one's places, best first. */
export function PlacesCompared({
  places,
  hereName,
  channel,
  linkTo,
}: {
  readonly places: readonly PlaceNight[];
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
              <span className="text-note text-soft">
                {fixed(p.skyMagPerArcsec2, 1)} mag/arcsec²
                {p.usableMin > 0 ? `, 1 h is worth ${fixed(p.hereMin / p.usableMin, 1)} h` : ""}
              </span>
              <span className="text-note text-soft text-right">{formatMinutes(p.usableMin)} usable</span>
              {p.drive ? <span className="text-note col-span-2">{driveWords(p)}</span> : null}
            </li>
          ))}
      </ul>
      <p className="text-note text-soft mt-2">
        <Why title={`In hours at the zenith of ${hereName}`}>
          <p>
            Usable time there, weighted by altitude and Moon, times 10^(0.4 Δμ) for its darker or brighter sky. Holds
            for faint extended light with the same rig; it overstates the gain for bright objects and for narrow bands
            limited by read noise.
          </p>
          <p className="mt-2">
            A drive pays when the night there brings this whole night’s worth and a minute more for every minute on the
            road, both ways: the measure of the verdict on Tonight. Set-up is not taken off: it is needed here too.
          </p>
        </Why>
      </p>
    </Panel>
  );
}
