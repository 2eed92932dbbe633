import { Suspense, useState } from "react";
import { Await, Link } from "react-router";
import { FilePick } from "~/components/forms/FilePick";
import { SkyPicture } from "~/components/SkyPicture";
import { firstLayout } from "~/core/plan";
import { Panel } from "~/components/ui/Panel";
import { counted, fixed } from "~/components/numbers";
import { monthWord, shortNight } from "~/components/clock";
import { idleFit, idleNights, type SeasonPlan } from "~/core/season";
import type { SeasonIntent, SeasonAnswer } from "./intents";
import type { SeasonView } from "./load";

const MOST_BYTES = 1_000_000;

/** What one would like to shoot some day: put there from a target's page, or by a file of names or positions. */
export function WishPanel({
  view,
  plan,
  search,
  act,
  answer,
}: {
  readonly view: SeasonView;
  readonly plan: SeasonPlan;
  readonly search: string;
  readonly act: (intent: SeasonIntent) => void;
  readonly answer: SeasonAnswer | undefined;
}) {
  const [isReading, setReading] = useState(false);
  const { wishes } = view;
  return (
    <Panel title="Wish list" aside={wishes.length > 0 ? "months: under the year" : undefined}>
      {wishes.length === 0 ? (
        <p className="text-soft">
          Put a target here from its page, or bring a file: one name or position a line, CSV or VOTable.
        </p>
      ) : (
        <ul>
          {wishes.map((w) => (
            <li key={w.targetId} className="flex gap-3 py-1">
              <SkyPicture
                entry={w.entry}
                frame={w.entry && view.optics ? firstLayout(w.entry, view.optics) : null}
                sizePx={56}
              />
              <div className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-3">
                <Link
                  to={`/targets/${encodeURIComponent(w.targetId)}${search}`}
                  className="min-w-0 flex-1 truncate hover:underline"
                >
                  {w.name}
                </Link>
                <button
                  type="button"
                  className="text-soft hover:text-ink min-h-6 underline underline-offset-4"
                  aria-label={`Take off the list: ${w.name}`}
                  onClick={() => act({ act: "unwish", targetIds: [w.targetId] })}
                >
                  take off
                </button>
                <WishFacts targetId={w.targetId} view={view} plan={plan} />
              </div>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-2">
        <FilePick
          label="Wishes from a file"
          words={isReading ? "Reading the wishes …" : "Wishes from a file"}
          types={{ "text/plain": [".txt", ".csv"], "application/xml": [".xml", ".vot"] }}
          mostBytes={MOST_BYTES}
          look="plain"
          onFiles={async ([file]) => {
            setReading(true);
            act({ act: "wishes", text: await file.text() });
            setReading(false);
          }}
        />
      </div>
      {answer?.missing && answer.missing.length > 0 ? (
        <p className="text-rust mt-1" role="alert">
          Not found: {answer.missing.join(", ")}. {counted(answer.found ?? 0, "other")} taken.
        </p>
      ) : null}
    </Panel>
  );
}

/** What the nights that the plan leaves idle would give a wish, and who else could shoot it. */
function WishFacts({
  targetId,
  view,
  plan,
}: {
  readonly targetId: string;
  readonly view: SeasonView;
  readonly plan: SeasonPlan;
}) {
  return (
    <Suspense fallback={null}>
      <Await resolve={view.year} errorElement={null}>
        {(rows) => {
          const row = rows.find((r) => r.isWish && r.id === targetId);
          if (!row) return null;
          const fit = idleFit(idleNights(plan), row.usableMin, view.leastMin);
          const best = row.months.reduce((a, b) => (b.hours > a.hours ? b : a), { month: "", hours: 0 });
          const others = row.others.map(
            (o) => `${o.memberName} at ${o.placeName} in ${monthWord(o.month)}, ${fixed(o.hours, 0)} h`,
          );
          return (
            <span className="text-note text-soft w-full">
              {best.hours < 1
                ? "Hardly ever usable here. "
                : `Best here in ${monthWord(best.month)}, ${fixed(best.hours, 0)} h. `}
              {fit.first
                ? `Fits ${counted(fit.nights, "idle night")} from ${shortNight(fit.first)} on: ${fixed(fit.hours, 1)} h of those that will be clear.`
                : "No night that the plan leaves idle would do."}
              {others.length > 0 ? ` With ${others.join("; ")}.` : ""}
            </span>
          );
        }}
      </Await>
    </Suspense>
  );
}
