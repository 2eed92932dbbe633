import { Link } from "react-router";
import type { CatalogEntry } from "~/core/catalog";
import { isInPanel, skyToFrame, type MosaicLayout, type Panel } from "~/core/framing";
import { entryFacts, entryTitle } from "~/components/words/target-words";

/** Objects whose middle lies in a panel, best known first, and those cut by the border. */
function inside(objects: readonly CatalogEntry[], layout: MosaicLayout, panels: readonly Panel[]) {
  return objects.flatMap((entry) => {
    const p = skyToFrame(layout, entry.at);
    if (!p || !panels.some((panel) => isInPanel(layout, panel, p))) return [];
    const r = (entry.majorArcmin ?? 0) / 2;
    const around = Array.from({ length: 8 }, (_, i) => ({
      xArcmin: p.xArcmin + r * Math.cos((i * Math.PI) / 4),
      yArcmin: p.yArcmin + r * Math.sin((i * Math.PI) / 4),
    }));
    return [{ entry, isCut: !around.every((a) => panels.some((panel) => isInPanel(layout, panel, a))) }];
  });
}

const SHOWN = 14;

/** What else is in the frame. */
export function InHere({
  objects,
  layout,
  panels,
  search,
}: {
  readonly objects: readonly CatalogEntry[];
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  readonly search: string;
}) {
  const found = inside(objects, layout, panels);
  if (found.length === 0) return <p className="text-soft">No catalogued object has its middle in here.</p>;
  return (
    <>
      <ul>
        {found.slice(0, SHOWN).map(({ entry, isCut }) => (
          <li key={entry.id} className="border-rule border-t py-1">
            <Link to={`/targets/${encodeURIComponent(entry.id)}${search}`} className="block min-h-6 hover:underline">
              {entryTitle(entry)}
            </Link>
            <span className="text-note text-soft">
              {entryFacts(entry)}
              {isCut ? " · cut by the border" : ""}
            </span>
          </li>
        ))}
      </ul>
      {found.length > SHOWN ? <p className="text-note text-soft mt-1">and {found.length - SHOWN} less known</p> : null}
    </>
  );
}
