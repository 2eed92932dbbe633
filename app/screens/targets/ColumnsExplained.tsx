import { Why } from "~/components/ui/Why";

/** What the columns of the list are calculated from, and how far to trust them. */
export function ColumnsExplained() {
  return (
    <Why title="How this is calculated" className="min-h-6">
      <dl className="space-y-2">
        <div>
          <dt className="font-semibold">Usable and worth</dt>
          <dd>
            Dark minutes above your skyline and lowest altitude, with the Moon as you take it (Kit, Rules); worth counts
            them in hours at your moonless zenith. Steps of 3 minutes, clear sky.
          </dd>
        </div>
        <div>
          <dt className="font-semibold">Season</dt>
          <dd>
            Weeks until an hour a night is no longer to be had, ignoring the Moon and lamps. Good to a week; the
            target’s own page goes night by night.
          </dd>
        </div>
        <div>
          <dt className="font-semibold">Needs</dt>
          <dd>
            Hours to begin with, over all panels and channels: a rule of thumb by object, focal ratio and sky, good to a
            factor of two. Nights: those hours over the mean worth of a clear night of the season, 85 % of it exposed.
          </dd>
        </div>
        <div>
          <dt className="font-semibold">Order</dt>
          <dd>
            How rewarding the object is × fit to the field × √worth × whether the clear nights ahead suffice (half when
            they give a quarter; a little more when it then closes within six weeks). A proposal, not a law.
          </dd>
        </div>
      </dl>
    </Why>
  );
}
