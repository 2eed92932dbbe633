import { useSearchParams } from "react-router";
import { keptSearch } from "~/desk/sky/choice";
import { DetailPanel } from "./DetailPanel";
import type { TargetView } from "./load";
import { PlacesCompared } from "./PlacesCompared";

/** Under the evidence: what to decide with it: which detail comes out, and whether another place pays. */
export function TargetChoices({ view }: { readonly view: TargetView }) {
  const [params] = useSearchParams();
  return (
    <div className="mt-6 grid items-start gap-4 md:grid-cols-2">
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
    </div>
  );
}
