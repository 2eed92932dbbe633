import { useVirtualizer } from "@tanstack/react-virtual";
import { memo, useLayoutEffect, useRef, useState, useSyncExternalStore, type KeyboardEvent } from "react";
import type { Optics } from "~/core/framing";
import { exactLine, type PlaceNight } from "~/core/night";
import { HourScale } from "~/components/charts/WorthStrip";
import type { Order, TargetLine } from "./lines";
import { TargetRow } from "./TargetRow";

/** Height of a line in rem, wide and narrow: name, two lines of facts, and on narrow windows one more. Fixed, since measuring every line costs a layout. */
const ROW_REM = { wide: 4.5, narrow: 5.75 } as const;
const WIDE = "(min-width: 48rem)";

const rowPx = () =>
  ROW_REM[window.matchMedia(WIDE).matches ? "wide" : "narrow"] *
  (Number.parseFloat(getComputedStyle(document.documentElement).fontSize) || 16);

/** Height of a line now; it follows the window and the theme, which sets the size of type. */
const useRowPx = () => useSyncExternalStore(onSizeChange, rowPx, () => ROW_REM.wide * 16);

function onSizeChange(then: () => void): () => void {
  const wide = window.matchMedia(WIDE);
  const theme = new MutationObserver(then);
  wide.addEventListener("change", then);
  theme.observe(document.documentElement, { attributes: true, attributeFilter: ["data-theme"] });
  return () => {
    wide.removeEventListener("change", then);
    theme.disconnect();
  };
}
/** Columns: target, night, usable, season, needs; the night and what follows go under the name on narrow windows. */
export const COLUMNS =
  "grid grid-cols-[minmax(0,1fr)_5rem] gap-x-4 md:grid-cols-[minmax(0,22rem)_minmax(0,1fr)_7.5rem_7.5rem_6.5rem]";

const HEADS = [
  { order: "usable", word: "Usable", isWide: false },
  { order: "season", word: "Season", isWide: true },
  { order: "nights", word: "Needs", isWide: true },
] as const;

/**
 * The ranked catalogue as one table: only the lines in view are drawn, each with its strip. Arrows, page keys, Home and End
 * go through it, Enter opens a line, the heads order it.
 */
export const TargetList = memo(function TargetList({
  lines,
  night,
  optics,
  order,
  onOrder,
  linkTo,
}: {
  readonly lines: readonly TargetLine[];
  readonly night: PlaceNight;
  readonly optics: Optics;
  readonly order: Order;
  readonly onOrder: (order: Order) => void;
  readonly linkTo: (id: string) => string;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [active, setActive] = useState(0);
  const wantsFocus = useRef(false);
  const height = useRowPx();
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are called here only, never handed on
  const virtualizer = useVirtualizer({
    count: lines.length,
    getScrollElement: () => box.current,
    estimateSize: () => height,
    overscan: 4,
  });
  useLayoutEffect(() => virtualizer.measure(), [virtualizer, height]);
  const go = (to: number) => {
    const next = Math.min(lines.length - 1, Math.max(0, to));
    wantsFocus.current = true;
    setActive(next);
    virtualizer.scrollToIndex(next);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const page = Math.max(1, Math.floor((box.current?.clientHeight ?? 0) / height) - 1);
    const moves: Readonly<Record<string, number>> = {
      ArrowDown: active + 1,
      ArrowUp: active - 1,
      PageDown: active + page,
      PageUp: active - page,
      Home: 0,
      End: lines.length - 1,
    };
    const to = moves[e.key];
    if (to === undefined) return;
    e.preventDefault();
    go(to);
  };
  const current = Math.min(active, lines.length - 1);
  const head = "text-note text-soft min-h-6 text-right hover:underline";
  return (
    <div role="grid" aria-label="Targets" aria-rowcount={lines.length + 1} aria-colcount={5}>
      <div role="rowgroup">
        <div role="row" aria-rowindex={1} className={`${COLUMNS} border-rule text-note items-end border-b pr-3`}>
          <div role="columnheader" aria-sort={order === "name" ? "ascending" : "none"}>
            <button
              type="button"
              className="text-soft min-h-6 hover:underline"
              onClick={() => onOrder(order === "name" ? "overall" : "name")}
            >
              Target{order === "name" ? " ↓" : ""}
            </button>
          </div>
          <div role="columnheader" className="hidden md:block">
            <span className="sr-only">Night</span>
            <HourScale steps={night.steps} zone={night.place.timeZone} />
          </div>
          {HEADS.map((h) => (
            <div
              key={h.order}
              role="columnheader"
              aria-sort={order === h.order ? (h.order === "usable" ? "descending" : "ascending") : "none"}
              className={`text-right ${h.isWide ? "hidden md:block" : ""}`}
            >
              <button type="button" className={head} onClick={() => onOrder(order === h.order ? "overall" : h.order)}>
                {h.word}
                {order === h.order ? " ↓" : ""}
              </button>
            </div>
          ))}
        </div>
      </div>
      <div ref={box} role="rowgroup" className="h-[calc(100vh-22rem)] min-h-80 overflow-y-auto" onKeyDown={onKeyDown}>
        <div role="presentation" className="relative" style={{ height: virtualizer.getTotalSize() }}>
          {virtualizer.getVirtualItems().map((item) => {
            const { line, walk } = exactLine(lines[item.index]!, night, lines[item.index]!.entry.at);
            const isCurrent = item.index === current;
            return (
              <div
                key={line.entry.id}
                role="row"
                aria-rowindex={item.index + 2}
                className={`${COLUMNS} border-rule absolute inset-x-0 items-center overflow-hidden border-b pr-3`}
                style={{ top: item.start, height }}
              >
                <TargetRow
                  line={line}
                  walk={walk}
                  night={night}
                  optics={optics}
                  to={linkTo(line.entry.id)}
                  isCurrent={isCurrent}
                  onFocus={() => setActive(item.index)}
                  linkRef={(el) => {
                    if (!el || !isCurrent || !wantsFocus.current) return;
                    wantsFocus.current = false;
                    el.focus({ preventScroll: true });
                  }}
                />
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
});
