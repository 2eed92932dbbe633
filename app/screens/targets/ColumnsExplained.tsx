import { Why } from "~/components/ui/Why";

/** What the columns of the list are calculated from, and how far to trust them. */
export function ColumnsExplained() {
  return (
    <Why title="How this is calculated" className="min-h-6">
      <dl className="space-y-2">
        <div>
          <dt className="font-semibold">Usable and worth</dt>
          <dd>
            Minutes above your skyline and lowest altitude, with Moon and twilight as you take them (Kit, Rules); worth
            counts them in hours at your moonless zenith, by the target’s own light, the sky, and what your camera adds.
            Steps of 3 minutes, clear sky.
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
            Hours to begin with, over all panels and channels, for the faintest part that belongs to the picture: one
            model for object, aperture, filter and sky, fitted to what people take, good to a factor of 1.6. Nights:
            those hours over the mean worth of a clear night of the season, 85 % of it exposed.
          </dd>
        </div>
        <div>
          <dt className="font-semibold">Order</dt>
          <dd>
            How rewarding the object is × fit to the field (500 pixels across are plenty) × what the night is worth ×
            whether this is its time of the year × whether the clear nights ahead suffice. Over 60 h or 15 clear nights
            stand lower. Of a group and its members the one that suits your field stands for all. A proposal, not a law.
          </dd>
        </div>
      </dl>
    </Why>
  );
}
