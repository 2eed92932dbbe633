import { useDesk } from "~/at-desk";
import { useMemo, useState } from "react";
import type { WantedOutline } from "./CoverPanel";
import { entryTitle } from "~/components/words/target-words";
import type { CatalogEntry } from "~/core/catalog";
import {
  ellipseOutline,
  emptyPanels,
  isInPanel,
  skyToFrame,
  type Cover,
  movedFrame,
  type MosaicLayout,
  type Panel,
  type PlaneVertex,
} from "~/core/framing";
import type { FrameData } from "~/core/plan";
import { separationDeg, type Equatorial } from "~/core/sky";

type Corner = readonly [raDeg: number, decDeg: number];

const MOST_LISTED = 12;
const FARTHEST_DEG = 40; // ten panels of a short lens

/** Corners of an object's catalogue ellipse on the sky. */
const ellipseCorners = (e: CatalogEntry): Corner[] => ellipseOutline(e).map((p) => [p.raDeg, p.decDeg]);

/** Outlines that can be wanted in a frame: the target's, those of objects in it, and those drawn by hand; drawing; covering. */
export function useOutlines(at: {
  readonly frame: FrameData;
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  readonly objects: readonly CatalogEntry[];
  readonly target: CatalogEntry | null;
  readonly change: (part: Partial<FrameData>) => void;
}) {
  const desk = useDesk();
  const { frame, layout, panels, objects, target, change } = at;
  const [draft, setDraft] = useState<readonly Corner[] | null>(null);
  const known = useMemo(() => {
    const drawn = (frame.outlines ?? []).map((o, i) => ({
      ...{ key: `drawn ${i}`, name: o.name, isDrawn: true, isWanted: true, corners: o.corners },
    }));
    const inside = objects.filter((e) => {
      if (e.id === target?.id || (e.majorArcmin ?? 0) < 1) return false;
      const p = skyToFrame(layout, e.at);
      return p !== null && panels.some((panel) => isInPanel(layout, panel, p)) && e.rank > 30;
    });
    const listed = [...(target?.majorArcmin ? [target] : []), ...inside.slice(0, MOST_LISTED)].map((e) => ({
      key: `object ${e.id}`,
      name: entryTitle(e),
      isDrawn: false,
      isWanted: e.id === target?.id,
      corners: ellipseCorners(e),
    }));
    return [...drawn, ...listed];
  }, [frame.outlines, objects, target, layout, panels]);
  const onPlane = (keys: readonly string[], frameLayout: MosaicLayout): PlaneVertex[][] =>
    known
      .filter((o) => keys.includes(o.key))
      .map((o) =>
        o.corners.flatMap(([raDeg, decDeg]): PlaneVertex[] => {
          const p = skyToFrame(frameLayout, { frame: "icrs", raDeg, decDeg });
          return p ? [[p.xArcmin, p.yArcmin]] : [];
        }),
      );
  const draw = (what: "begin" | "finish" | "drop") => {
    if (what === "begin") return setDraft([]);
    if (what === "finish" && draft && draft.length >= 3) {
      const outlines = frame.outlines ?? [];
      change({ outlines: [...outlines, { name: `outline ${outlines.length + 1}`, corners: draft }] });
    }
    setDraft(null);
  };
  const cover = (keys: readonly string[], isFixed: boolean) =>
    desk.workers.frame.cover(
      { outlines: onPlane(keys, layout), size: layout, fixedTurnDeg: isFixed ? 0 : null },
      new AbortController().signal,
    );
  const takeCover = (found: Cover, keys: readonly string[]) => {
    const [dxArcmin, dyArcmin] = found.centre;
    const { centre, positionAngleDeg } = movedFrame(layout, { dxArcmin, dyArcmin, turnDeg: found.turnDeg });
    const next: FrameData = {
      ...frame,
      raDeg: centre.raDeg,
      decDeg: centre.decDeg,
      positionAngleDeg: positionAngleDeg % 180,
      columns: found.columns,
      rows: found.rows,
      rowShift: 0,
      extra: [],
      skipped: [],
      order: [],
    };
    const nextLayout: MosaicLayout = {
      ...layout,
      centre,
      positionAngleDeg: next.positionAngleDeg,
      columns: found.columns,
      rows: found.rows,
      rowShift: 0,
      extra: [],
      skipped: [],
    };
    change({ ...next, skipped: emptyPanels(nextLayout, onPlane(keys, nextLayout)) });
  };
  /** Puts an object's outline in by its name, wherever it lies; why it cannot, "" when it could. */
  const addByName = async (name: string): Promise<string> => {
    const [entry] = await desk.workers.sky.search(name.trim(), 1);
    if (!entry) return `Nothing in the catalogue is called “${name.trim()}”.`;
    const title = entryTitle(entry);
    const outlines = frame.outlines ?? [];
    if (known.some((o) => o.name === title)) return `${title} is in the list already.`;
    if (separationDeg(entry.at, layout.centre) > FARTHEST_DEG)
      return `${title} is ${Math.round(separationDeg(entry.at, layout.centre))}° away: too far for one frame.`;
    const sized = { ...entry, majorArcmin: entry.majorArcmin ?? 1 };
    change({ outlines: [...outlines, { name: title, corners: ellipseCorners(sized) }] });
    return "";
  };
  return {
    addByName,
    outlines: known as readonly WantedOutline[],
    drawn: frame.outlines ?? NONE,
    draft,
    draw,
    corner: (p: Equatorial<"icrs">) => setDraft((d) => (d ? [...d, [p.raDeg, p.decDeg]] : d)),
    remove: (key: string) => change({ outlines: (frame.outlines ?? []).filter((_, i) => `drawn ${i}` !== key) }),
    cover,
    takeCover,
  };
}

const NONE: NonNullable<FrameData["outlines"]> = [];
