import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef, type KeyboardEvent } from "react";
import { clockTime } from "~/components/clock";
import { fixed } from "~/components/numbers";
import { CULL_WORDS } from "~/components/words/log-words";
import type { CullHint } from "~/core/ledger";
import type { LoggedSub } from "~/desk/log/cull";
import { hintWords } from "~/components/words/cull-words";
import type { useSelection } from "./use-selection";

const ROW_PX = 32;
const COLUMNS =
  "grid grid-cols-[3.2rem_minmax(4rem,1fr)_3rem_minmax(5.5rem,1.4fr)] gap-2 sm:grid-cols-[4rem_minmax(6rem,1fr)_4rem_4.5rem_4rem_4.5rem_5rem_minmax(9rem,1.4fr)]";

/** A night's subs in order of time; only what can be seen is drawn. Keys: arrows, Shift for a range, Space, Ctrl A; X drops, K keeps. */
export function SubsTable({
  subs,
  hints,
  scales,
  zone,
  selection,
  onDrop,
  onKeep,
}: {
  readonly subs: readonly LoggedSub[];
  readonly hints: ReadonlyMap<string, CullHint>;
  readonly scales: Readonly<Record<string, number>>;
  readonly zone: string;
  readonly selection: ReturnType<typeof useSelection>;
  readonly onDrop: () => void;
  readonly onKeep: () => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are called here only, never handed on
  const virtualizer = useVirtualizer({
    count: subs.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
  });
  const { cursor, chosen } = selection;
  useEffect(() => {
    virtualizer.scrollToIndex(cursor, { align: "auto" });
  }, [virtualizer, cursor]);
  const onKey = (e: KeyboardEvent) => {
    if (selection.onKey(e) || e.ctrlKey || e.metaKey || e.altKey) return;
    const key = e.key.toLowerCase();
    if (key === "x") onDrop();
    else if (key === "k") onKeep();
    else return;
    e.preventDefault();
  };
  const heads = ["Time", "Panel", "Sub", "FWHM", "Ecc.", "Stars", "Sky", "Kept"] as const;
  const hidden: ReadonlySet<string> = new Set(["Sub", "Ecc.", "Stars", "Sky"]);
  const cellLook = (head: string) =>
    `${hidden.has(head) ? "hidden sm:block" : ""} ${head === "Kept" ? "pl-3" : head === "Time" || head === "Panel" ? "" : "text-right"}`;
  return (
    <div
      role="grid"
      tabIndex={0}
      aria-label="Subs of the night"
      aria-rowcount={subs.length + 1}
      aria-multiselectable="true"
      aria-activedescendant={subs[cursor] ? `sub-${cursor}` : undefined}
      onKeyDown={onKey}
      className="border-rule focus-visible:outline-lamp rounded-[10px] border outline-offset-2"
    >
      <div role="row" className={`${COLUMNS} text-note text-soft border-rule border-b px-2 py-1`}>
        {heads.map((h) => (
          <span key={h} role="columnheader" className={cellLook(h)}>
            {h}
          </span>
        ))}
      </div>
      <div ref={box} className="max-h-[58vh] min-h-40 overflow-y-auto">
        <div className="relative" style={{ height: virtualizer.getTotalSize() }}>
          {virtualizer.getVirtualItems().map(({ index, start }) => {
            const { id, data } = subs[index]!;
            const { measure } = data;
            const hint = hints.get(id);
            const is = chosen.has(id);
            const fwhm = measure ? measure.fwhmPx * (scales[data.rigId] ?? 0) : 0;
            return (
              <div
                key={id}
                id={`sub-${index}`}
                role="row"
                aria-selected={is}
                aria-rowindex={index + 2}
                onClick={(e) => selection.onPress(index, e)}
                className={`${COLUMNS} absolute inset-x-0 cursor-default items-center px-2 select-none ${is ? "bg-raised" : ""} ${index === cursor ? "outline-rule outline -outline-offset-1" : ""} ${data.kept === 0 ? "text-faint" : ""}`}
                style={{ top: start, height: ROW_PX }}
              >
                <span role="gridcell">{clockTime(data.startMs!, zone)}</span>
                <span role="gridcell" className="truncate font-semibold">
                  {data.panel} {data.channel}
                </span>
                <span role="gridcell" className="hidden text-right sm:block">
                  {data.exposureSec} s
                </span>
                <span role="gridcell" className="text-right">
                  {measure ? `${fixed(fwhm, 1)}″` : "–"}
                </span>
                <span role="gridcell" className="hidden text-right sm:block">
                  {measure?.eccentricity == null ? "–" : fixed(measure.eccentricity, 2)}
                </span>
                <span role="gridcell" className="hidden text-right sm:block">
                  {measure?.stars ?? "–"}
                </span>
                <span role="gridcell" className="hidden text-right sm:block">
                  {measure?.background == null ? "–" : fixed(measure.background, 0)}
                </span>
                <span role="gridcell" className="truncate pl-3">
                  {data.kept === 0 ? (
                    <span className="text-rust">dropped, {CULL_WORDS[data.reason || "other"]}</span>
                  ) : hint ? (
                    <span className="text-lamp">{hintWords(hint)}</span>
                  ) : (
                    "kept"
                  )}
                </span>
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}
