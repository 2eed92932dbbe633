import { Link, useSearchParams } from "react-router";
import { NightAccountChart } from "~/components/charts/NightAccountChart";
import { DetailPanel } from "./DetailPanel";
import { PlacesCompared } from "./PlacesCompared";
import { entryTitle } from "~/components/words/target-words";
import { Panel } from "~/components/ui/Panel";
import { keptSearch } from "~/desk/choice";
import type { TargetView } from "./load";

/** Beside a target: where its night goes, which detail comes out, other places, and what else is in the field. */
export function TargetAside({ view, search }: { readonly view: TargetView; readonly search: string }) {
  const [params] = useSearchParams();
  return (
    <>
      <Panel title="Where the night goes" aside={view.channel}>
        <NightAccountChart account={view.account} />
      </Panel>
      {view.transit ? (
        <DetailPanel
          optics={view.optics}
          rigName={view.rigName}
          channel={view.channel}
          seeingArcsec={view.seeingArcsec}
          altitudeDeg={view.transit.altitudeDeg}
        />
      ) : null}
      {view.elsewhere.length > 0 ? (
        <PlacesCompared
          places={view.elsewhere}
          hereName={view.place.name}
          channel={view.channel}
          linkTo={(id) => keptSearch(params, { place: id })}
        />
      ) : null}
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
