import { useState } from "react";
import { Link } from "react-router";
import { FilePick } from "~/components/forms/FilePick";
import { Panel } from "~/components/ui/Panel";
import { counted } from "~/components/numbers";
import type { SeasonIntent, SeasonAnswer } from "./intents";
import type { SeasonView } from "./load";

const MOST_BYTES = 1_000_000;

/** What one would like to shoot some day: put there from a target's page, or by a file of names or positions. */
export function WishPanel({
  view,
  search,
  act,
  answer,
}: {
  readonly view: SeasonView;
  readonly search: string;
  readonly act: (intent: SeasonIntent) => void;
  readonly answer: SeasonAnswer | undefined;
}) {
  const [isReading, setReading] = useState(false);
  const { wishes } = view;
  return (
    <Panel title="Wish list" aside={wishes.length > 0 ? "its months stand under the year" : undefined}>
      {wishes.length === 0 ? (
        <p className="text-soft">
          Put a target here from its page, or bring a file: one name or position a line, CSV or VOTable.
        </p>
      ) : (
        <ul>
          {wishes.map((w) => (
            <li key={w.targetId} className="flex flex-wrap items-baseline gap-x-3">
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
            </li>
          ))}
        </ul>
      )}
      <div className="mt-2">
        <FilePick
          label="Wishes from a file"
          words={isReading ? "Reading …" : "Wishes from a file"}
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
