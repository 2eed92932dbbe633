import { Link } from "react-router";
import { shortNight } from "~/components/clock";
import { Button } from "~/components/ui/Button";

const SHOWN = 3;

/** Nights of which nobody wrote down anything: one press each, since the odds learn from clouded nights as well. */
export function SilentNights({
  nights,
  placeName,
  placeId,
  isBusy,
  onSay,
}: {
  readonly nights: readonly string[];
  readonly placeName: string;
  readonly placeId: string;
  readonly isBusy: boolean;
  readonly onSay: (night: string, isClear: boolean) => void;
}) {
  if (nights.length === 0) return null;
  return (
    <section aria-label="Nights nobody wrote down" className="border-lamp my-3 border-l-2 pl-3">
      <p>
        How was it at {placeName}? <span className="text-soft">Chances of clear nights learn from every answer.</span>
      </p>
      <ul>
        {nights.slice(0, SHOWN).map((night) => (
          <li key={night} className="flex flex-wrap items-center gap-x-3 py-0.5">
            <span className="w-24">{shortNight(night)}</span>
            <Button
              look="plain"
              disabled={isBusy}
              aria-label={`${shortNight(night)}: lost to cloud`}
              onClick={() => onSay(night, false)}
            >
              lost to cloud
            </Button>
            <Button
              look="plain"
              disabled={isBusy}
              aria-label={`${shortNight(night)}: clear, not used`}
              onClick={() => onSay(night, true)}
            >
              clear, not used
            </Button>
            <Link
              to={`/log/nights?night=${night}&place=${placeId}`}
              className="text-note text-soft underline underline-offset-4"
            >
              write down more
            </Link>
          </li>
        ))}
      </ul>
      {nights.length > SHOWN ? <p className="text-note text-soft">and {nights.length - SHOWN} more</p> : null}
    </section>
  );
}
