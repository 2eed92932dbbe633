import { fixed } from "~/components/numbers";
import { Progress } from "~/components/ui/Progress";
import { useState } from "react";
import type { PlacementFound, PlacementLimits, SeamCount, SeamStar } from "~/core/framing";
import { formatDegrees, parseNumber } from "~/core/notation";
import { Button } from "~/components/ui/Button";
import { Field, SelectField } from "~/components/ui/Field";
import { Why } from "~/components/ui/Why";
import { SeamReport, type NamedStar } from "./SeamReport";

/** Brightest to faintest limit of stars that are minded in seams. */
const LIMITS = [5, 6, 7, 8, 8.5, 9, 10] as const;

/** What the search may change, as typed. */
interface Typed {
  readonly shift: string;
  readonly turn: string;
  readonly from: string;
  readonly to: string;
}

/** The limits typed, or what is wrong by box. */
function limitsOf(typed: Typed, sideArcmin: number): { limits: PlacementLimits | null; faults: Partial<Typed> } {
  const [shift, turn, from, to] = [typed.shift, typed.turn, typed.from, typed.to].map(parseNumber) as [
    number | null,
    number | null,
    number | null,
    number | null,
  ];
  const faults: { -readonly [K in keyof Typed]?: string } = {};
  if (shift === null || shift < 0 || shift > 50) faults.shift = "0 to 50 % of a panel.";
  if (turn === null || turn < 0 || turn > 90) faults.turn = "0 to 90°.";
  if (from === null || from < 5 || from > 40) faults.from = "5 to 40 %.";
  if (to === null || to < (from ?? 0) || to > 40) faults.to = "At least the first, up to 40 %.";
  if (Object.keys(faults).length > 0 || shift === null || turn === null || from === null || to === null)
    return { limits: null, faults };
  const overlap = { from: from / 100, to: to / 100 };
  return { limits: { shiftArcmin: (shift / 100) * sideArcmin, turnDeg: turn, overlap }, faults };
}

const seamWords = ({ stars, brightestMag }: SeamCount) =>
  brightestMag === null
    ? "no star"
    : `${stars} ${stars === 1 ? "star" : "stars"}, brightest ${fixed(brightestMag, 1)} mag,`;

/** Stars in the seams, worst first, and a search for a place where there are none. */
export function SeamPanel({
  found,
  limit,
  onLimit,
  sideArcmin,
  overlap,
  labelOf,
  onShow,
  onSearch,
  onTake,
}: {
  readonly found: readonly SeamStar<NamedStar>[];
  readonly limit: number;
  readonly onLimit: (limit: number) => void;
  readonly sideArcmin: number;
  readonly overlap: number;
  readonly labelOf: (panel: number) => string;
  readonly onShow: (star: NamedStar) => void;
  readonly onSearch: (
    limits: PlacementLimits,
    /** No star brighter than this in any seam; null = only the sum counts. */
    hardMag: number | null,
    signal: AbortSignal,
    onProgress: (share: number) => void,
  ) => Promise<PlacementFound>;
  readonly onTake: (found: PlacementFound) => void;
}) {
  const percent = Math.round(overlap * 100);
  const [typed, setTyped] = useState<Typed>({ shift: "12", turn: "5", from: String(percent), to: String(percent) });
  const [work, setWork] = useState<{ readonly share: number; readonly stop: AbortController } | null>(null);
  const [result, setResult] = useState<PlacementFound | null>(null);
  const [isHard, setHard] = useState(false);
  const { limits, faults } = limitsOf(typed, sideArcmin);
  const search = async () => {
    if (!limits) return;
    const stop = new AbortController();
    setWork({ share: 0, stop });
    setResult(null);
    try {
      const best = await onSearch(limits, isHard ? limit : null, stop.signal, (share) =>
        setWork((w) => (w ? { ...w, share } : w)),
      );
      setResult(best);
      if (best.isBetter) onTake(best);
    } catch (error) {
      if (!stop.signal.aborted) throw error;
    } finally {
      setWork(null);
    }
  };
  const box = (key: keyof Typed, label: string, unit: string) => (
    <Field
      label={label}
      unit={unit}
      inputMode="decimal"
      value={typed[key]}
      fault={faults[key]}
      onChange={(e) => setTyped({ ...typed, [key]: e.target.value })}
    />
  );
  return (
    <>
      <SelectField
        label="Mind stars brighter than"
        value={String(limit)}
        onChange={(e) => onLimit(Number(e.target.value))}
      >
        {LIMITS.map((m) => (
          <option key={m} value={m}>
            magnitude {m}
          </option>
        ))}
      </SelectField>
      <div className="mt-2">
        <SeamReport found={found} limit={limit} labelOf={labelOf} onShow={onShow} />
      </div>
      <h3 className="text-section text-soft mt-4 font-serif">Find a better place</h3>
      <div className="mt-1 grid grid-cols-2 gap-3">
        {box("shift", "Shift up to", "% of a panel")}
        {box("turn", "Turn up to", "°")}
        {box("from", "Overlap from", "%")}
        {box("to", "Overlap to", "%")}
      </div>
      <label className="mt-3 flex min-h-6 items-center gap-2">
        <input type="checkbox" checked={isHard} onChange={(e) => setHard(e.target.checked)} />
        No star brighter than magnitude {limit} in any seam, whatever else
      </label>
      {work ? (
        <Progress words="Searching …" share={work.share} onStop={() => work.stop.abort(new Error("stopped"))} />
      ) : (
        <Button className="mt-3" disabled={!limits} onClick={() => void search()}>
          Shift and turn to clear them
        </Button>
      )}
      {result && !result.isMet ? (
        <p className="text-rust mt-2">
          It cannot be met within these limits: a star of magnitude {fixed(result.inSeams.brightestMag ?? 0, 1)} stays
          in a seam. Allow more shift, turn or overlap.
        </p>
      ) : null}
      {result ? (
        <p className="mt-2" role="status">
          {result.isBetter ? (
            <>
              <Why title={`Seam score ${fixed(result.costBefore, 2)} before, ${fixed(result.cost, 2)} after.`}>
                <p>
                  Σ over stars of 10^(0.4 (8 − m)) × how near a seam’s middle they are (σ = 3 % of a panel), plus a
                  share for what is left of the target outside the panels and for a seam through its middle. Compare the
                  figures, do not read them alone; a proposal of this project.
                </p>
              </Why>{" "}
              Moved {fixed(Math.abs(result.placement.dxArcmin), 1)}′ {result.placement.dxArcmin < 0 ? "left" : "right"},{" "}
              {fixed(Math.abs(result.placement.dyArcmin), 1)}′ {result.placement.dyArcmin < 0 ? "down" : "up"}, turned{" "}
              {formatDegrees(result.placement.turnDeg)}, overlap {fixed(result.overlap * 100, 1)} %. In the seams{" "}
              {seamWords(result.inSeamsBefore)} before, {seamWords(result.inSeams)} after. Ctrl Z goes back.
            </>
          ) : (
            "Nothing better within these limits: it stays where it is."
          )}
        </p>
      ) : null}
    </>
  );
}
