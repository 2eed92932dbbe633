import { Link } from "react-router";
import { NightAccountChart } from "~/components/charts/NightAccountChart";
import { entryTitle } from "~/components/words/target-words";
import { Panel } from "~/components/ui/Panel";
import type { TargetView } from "./load";

/** Beside a target: where its night goes, and what else is in the field. */
export function TargetAside({ view, search }: { readonly view: TargetView; readonly search: string }) {
  return (
    <>
      <Panel title="Where the night goes" aside={view.channel}>
        <NightAccountChart account={view.account} />
      </Panel>
      {view.near.length > 0 ? (
        <Panel title="In the same field">
          <ul className="space-y-0.5">
            {view.near.map((e) => (
              <li key={e.id}>
                <Link
                  to={`/targets/${encodeURIComponent(e.id)}${search}`}
                  className="block min-h-6 py-0.5 hover:underline"
                >
                  {entryTitle(e)}
                </Link>
              </li>
            ))}
          </ul>
        </Panel>
      ) : null}
    </>
  );
}
