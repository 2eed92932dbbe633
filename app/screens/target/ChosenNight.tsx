import { shortNight } from "~/components/clock";
import { percent } from "~/components/numbers";
import type { YearNight } from "~/core/night";
import { formatMinutes } from "~/core/notation";

/** The chosen night of the year in words. */
export function ChosenNight({ nights, chosen }: { readonly nights: readonly YearNight[]; readonly chosen: string }) {
  const night = nights.find((n) => n.date === chosen);
  return night ? (
    <p className="text-note text-soft mt-1">
      {shortNight(chosen)}: ≈ {formatMinutes(night.usableMin)} usable, {formatMinutes(night.moonlessMin)} without the
      Moon, which is {percent(night.illuminatedFraction)} lit. Calculated every 3 minutes.
    </p>
  ) : null;
}
