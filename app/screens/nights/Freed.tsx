import { Link } from "react-router";
import { Time } from "~/components/Time";
import { counted } from "~/components/numbers";
import type { FreedHours } from "~/core/plan";

/** Dark hours of an evening whose goals are met, and what they are good for. */
export function Freed({
  freed: { fromMs, wish, darks },
  zone,
  search,
}: {
  readonly freed: FreedHours;
  readonly zone: string;
  readonly search: string;
}) {
  return (
    <p className="mt-1">
      Free from <Time ms={fromMs} zone={zone} />: every goal of this evening is met.
      {wish ? (
        <>
          {" "}
          From your wishes,{" "}
          <Link to={`/targets/${encodeURIComponent(wish.targetId)}${search}`} className="underline underline-offset-4">
            {wish.name}
          </Link>{" "}
          in {wish.channel}, <Time ms={wish.startMs} zone={zone} /> to <Time ms={wish.endMs} zone={zone} />.
        </>
      ) : null}
      {darks ? (
        <>
          {" "}
          {wish ? "Then, from" : "From"} <Time ms={darks.fromMs} zone={zone} />, {counted(darks.count, "dark")} of{" "}
          {darks.exposureSec} s that are due.
        </>
      ) : null}
    </p>
  );
}
