import type { Season } from "~/core/night";
import { shortNight } from "~/components/clock";

/** The season in one sentence. */
export function SeasonWords({ season }: { readonly season: Season }) {
  if (season.kind === "never")
    return (
      <p className="text-figure">
        Never an hour in a night from here: the skyline, the lowest altitude or the horizon take it all year.
      </p>
    );
  return (
    <>
      <p className="text-figure">
        Best from {shortNight(season.bestFrom)} to {shortNight(season.bestTo)}.
      </p>
      <p className="text-soft">
        {season.firstUseful && season.lastUseful
          ? `An hour or more, ignoring the Moon, from ${shortNight(season.firstUseful)} to ${shortNight(season.lastUseful)}.`
          : "An hour or more, ignoring the Moon, on every night of the year."}
      </p>
    </>
  );
}
