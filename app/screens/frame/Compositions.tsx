import { useEffect, useMemo, useState } from "react";
import { useDesk } from "~/at-desk";
import { SkyPicture } from "~/components/SkyPicture";
import { entryTitle } from "~/components/words/target-words";
import type { CatalogEntry } from "~/core/catalog";
import { compositions, mosaicExtent, type Composition, type MosaicLayout } from "~/core/framing";
import type { FrameData } from "~/core/plan";
import { separationDeg } from "~/core/sky";
import { turnTo } from "~/core/units";

const PICTURE_PX = 112;
const MOST_OTHERS = 60;
/** Of things worth a label: fainter ones make no picture. */
const WORTH_HAVING = 30;
/** Closer than this a frame lies as a composition has it. */
const [SAME_ARCMIN, SAME_DEG] = [0.3, 0.1];

/** What lies so near a target that a frame could hold both, best known first. */
function useNeighbours(target: CatalogEntry, reachDeg: number): readonly CatalogEntry[] {
  const desk = useDesk();
  const [found, setFound] = useState<readonly CatalogEntry[]>([]);
  const { raDeg, decDeg } = target.at;
  useEffect(() => {
    let isCurrent = true;
    desk.workers.sky.within({ raDeg, decDeg, radiusDeg: reachDeg, limit: MOST_OTHERS }).then(
      (entries) =>
        isCurrent &&
        setFound(entries.filter((e) => e.id !== target.id && e.rank > WORTH_HAVING && e.majorArcmin !== null)),
      () => undefined, // the chart beside it says that the catalogue did not come
    );
    return () => {
      isCurrent = false;
    };
  }, [desk, raDeg, decDeg, reachDeg, target.id]);
  return found;
}

function wordsOf({ how, brings, layout }: Composition<CatalogEntry>, middle: Composition<CatalogEntry>): string {
  const [more] = brings.filter((e) => !middle.brings.includes(e));
  const withMore = more ? `with ${entryTitle(more)}` : "";
  if (how === "middle") return "In the middle";
  if (how === "third") return `On a third${more ? `, ${withMore}` : ""}`;
  const turn = Math.round(turnTo(layout.positionAngleDeg, middle.layout.positionAngleDeg));
  const turned = turn === 0 ? "" : `; camera turned by ${Math.abs(turn)}° to the ${turn > 0 ? "east" : "west"}`;
  return `${withMore.charAt(0).toUpperCase()}${withMore.slice(1)}${turned}`;
}

const isAs = (a: MosaicLayout, b: MosaicLayout): boolean =>
  separationDeg(a.centre, b.centre) * 60 < SAME_ARCMIN &&
  Math.abs(turnTo(a.positionAngleDeg, b.positionAngleDeg)) < SAME_DEG;

/** Ways to lay the frame about its target, as small pictures to choose from. */
export function Compositions({
  target,
  kept,
  layout,
  onTake,
}: {
  readonly target: CatalogEntry;
  /** As it was kept last: pictures are not made anew while a frame is dragged. */
  readonly kept: MosaicLayout;
  /** As it lies now. */
  readonly layout: MosaicLayout;
  readonly onTake: (part: Pick<FrameData, "raDeg" | "decDeg" | "positionAngleDeg">) => void;
}) {
  const { widthArcmin, heightArcmin } = mosaicExtent(kept);
  const others = useNeighbours(target, Math.min(30, Math.hypot(widthArcmin, heightArcmin) / 60));
  const ways = useMemo(() => compositions(kept, target, others), [kept, target, others]);
  const [middle] = ways;
  if (!middle || ways.length < 2) return null;
  return (
    <section className="border-rule mt-4 border-t pt-3" aria-labelledby="compositions">
      <h2 id="compositions" className="text-section text-soft mb-2">
        Composition
      </h2>
      <ul className="grid grid-cols-3 gap-3">
        {ways.map((way) => (
          <li key={way.how}>
            <button
              type="button"
              aria-pressed={isAs(way.layout, layout)}
              onClick={() =>
                onTake({
                  raDeg: way.layout.centre.raDeg,
                  decDeg: way.layout.centre.decDeg,
                  positionAngleDeg: way.layout.positionAngleDeg,
                })
              }
              className="group text-note text-soft hover:text-ink aria-pressed:text-ink block w-full text-left"
            >
              <SkyPicture
                entry={target}
                frame={way.layout}
                sizePx={PICTURE_PX}
                className="group-aria-pressed:outline-lamp mb-1 group-aria-pressed:outline-2"
              />
              {wordsOf(way, middle)}
            </button>
          </li>
        ))}
      </ul>
      <p className="text-note text-soft mt-2">
        {entryTitle(target)} stays whole in it, a twentieth of each side left free; panels stay as they are. Known
        objects count, not what a survey shows.
      </p>
    </section>
  );
}
